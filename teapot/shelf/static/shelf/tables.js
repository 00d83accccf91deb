/* A mend of the filter of a table. */
import { start } from "../teapot/js/base.js";

document.addEventListener("click", (event) => {
  const mend = event.target.closest("#filter-said [data-mend]");
  if (!mend) return;
  const test = document.getElementById("test");
  test.value = mend.dataset.mend;
  test.focus();
  test.dispatchEvent(new Event("input", { bubbles: true }));
});

start();
