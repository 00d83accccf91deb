/* Fixes of the filter of a table, and undoing on the shelf. */
import { start } from "../teapot/js/base.js";

document.addEventListener("click", (event) => {
  const mend = event.target.closest("#filter-said [data-mend]");
  if (!mend) return;
  const test = document.getElementById("test");
  test.value = mend.dataset.mend;
  test.focus();
  test.dispatchEvent(new Event("input", { bubbles: true }));
});

// a column is drawn; the one that was drawn goes across where it is clicked again
document.addEventListener("click", (event) => {
  const name = event.target.closest("[data-draws]")?.dataset.draws;
  const form = document.getElementById("picture-of");
  if (!name || !form) return;
  const { up, across } = form.elements;
  if (up.value === name) {
    const others = [across.value, ...[...up.options].map((one) => one.value)];
    across.value = name;
    up.value = others.find((other) => other && other !== name) ?? name;
  } else {
    if (across.value === name) across.value = "";
    up.value = name;
  }
  form.dispatchEvent(new Event("change", { bubbles: true }));
});
document.addEventListener("htmx:afterSwap", (event) => {
  if (event.target.id === "rows") document.body.dispatchEvent(new Event("filtered"));
});

// a click on a row of a file is where its table begins; a column that does not fit is text
document.addEventListener("click", (event) => {
  const { begins, asText } = event.target.closest("[data-begins], [data-as-text]")?.dataset ?? {};
  const form = document.getElementById("guesses");
  if (!form || (!begins && !asText)) return;
  if (begins) form.elements.above.value = begins;
  const names = [...form.querySelectorAll("[name=column_name]")].map((field) => field.value);
  if (asText) form.querySelectorAll("[name=column_kind]")[names.indexOf(asText)].value = "text";
  form.dispatchEvent(new Event("change", { bubbles: true }));
});

// the last thing that was put into the bin comes back
document.addEventListener("keydown", (event) => {
  if (!event.ctrlKey || event.key.toLowerCase() !== "z" || event.target.closest("input, textarea")?.value) return;
  document.querySelector("[data-testid=said] button")?.click();
});

start();
