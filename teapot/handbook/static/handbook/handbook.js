/* The handbook's own pages: an example goes to the sheet that was opened last. */
import { start } from "../teapot/js/base.js";

document.addEventListener("click", (event) => {
  const put = event.target.closest("[data-put]");
  if (put) location.href = `/?put=${encodeURIComponent(put.dataset.put)}`;
});
document.querySelector("#subjects [aria-current]")?.scrollIntoView({ block: "center" });

// typing anywhere looks it up
const words = document.getElementById("words");
document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest("input, button, a")) return;
  if (event.key.length === 1) words.focus();
});

start();
