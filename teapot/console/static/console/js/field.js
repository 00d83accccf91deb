/* The field that is typed into: the entry of a sheet, or the lines of a procedure. */

export const area = document.getElementById("entry");

/** Puts a text into it, as if it were typed. */
export function write(text, caret = text.length) {
  area.value = text;
  area.setSelectionRange(caret, caret);
  area.dispatchEvent(new Event("input", { bubbles: true }));
  area.focus();
}

/** Puts a text in place of what is selected. */
export function insert(text) {
  area.setRangeText(text, area.selectionStart, area.selectionEnd, "end");
  write(area.value, area.selectionEnd);
}

/** What came with the reading of the text that stands there now, null where that is not here. */
export function company() {
  const found = document.getElementById("company");
  return found?.dataset.for === area.value ? found.dataset : null;
}
