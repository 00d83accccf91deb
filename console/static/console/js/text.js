/* Places in a text: the engine counts code points, the browser UTF-16 units. */
window.teapot = {
  /** Splits at the end of the selection, and puts `text` in its place. */
  insert(area, text) {
    area.focus();
    area.setRangeText(text, area.selectionStart, area.selectionEnd, "end");
    area.dispatchEvent(new Event("input", { bubbles: true }));
  },
  /** A fragment of HTML from the server as elements. */
  fragment(html) {
    const holder = document.createElement("template");
    holder.innerHTML = html;
    return holder.content;
  },
};
