/* The field that is typed into: the entry of a sheet, or the lines of a procedure. */

export const area = document.getElementById("entry");

/** Puts a text into it, as if it were typed. */
export function write(text, caret = text.length) {
  area.value = text;
  area.setSelectionRange(caret, caret);
  area.dispatchEvent(new Event("input", { bubbles: true }));
  area.focus();
}

/** Puts a text in place of a range, as if it were typed: Ctrl+Z takes it back. */
export function replaceRange(start, end, text) {
  area.focus();
  area.setSelectionRange(start, end);
  if (document.execCommand("insertText", false, text)) return;
  area.setRangeText(text, start, end, "end");
  area.dispatchEvent(new Event("input", { bubbles: true }));
}

/** Puts a text in place of what is selected. */
export const insert = (text) => replaceRange(area.selectionStart, area.selectionEnd, text);

/** What came with the reading of the text that stands there now, null where that is not here. */
export function company() {
  const found = document.getElementById("company");
  return found?.dataset.for === area.value ? found.dataset : null;
}
