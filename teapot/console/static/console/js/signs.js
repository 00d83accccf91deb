/* The signs that the keyboard of a phone hides, in rows below the entry, and keys that it lacks. */
import { wrap } from "./backdrop.js";
import { area, insert } from "./field.js";
import { walk } from "./history.js";
import { undo } from "./news.js";

const row = document.getElementById("signs");
const pages = row.querySelectorAll(".sign-page").length;

const moveCaret = (by) => {
  const place = Math.min(Math.max(area.selectionStart + by, 0), area.value.length);
  area.setSelectionRange(place, place);
};
const keys = {
  page: () => { row.dataset.page = (Number(row.dataset.page) % pages) + 1; },
  left: () => moveCaret(-1),
  right: () => moveCaret(1),
  history: () => { area.setSelectionRange(0, 0); walk(-1); },
  undo: () => (area.value ? document.execCommand("undo") : undo()),
};

// the entry keeps the focus, or the keyboard of a phone would go down
row.addEventListener("pointerdown", (event) => event.preventDefault());
row.addEventListener("click", (event) => {
  const { sign, key } = event.target.closest("button")?.dataset ?? {};
  if (!sign && !key) return;
  area.focus();
  if (key) keys[key]();
  else if (!(sign === "(" && wrap())) insert(sign);
});
