/* The signs that the keyboard of a phone hides, in a row below the entry. */
import { wrap } from "./backdrop.js";
import { area, insert } from "./field.js";

const row = document.getElementById("signs");

// the entry keeps the focus, or the keyboard of a phone would go down
row.addEventListener("pointerdown", (event) => event.preventDefault());
row.addEventListener("click", (event) => {
  const sign = event.target.closest("[data-sign]")?.dataset.sign;
  if (!sign) return;
  area.focus();
  if (!(sign === "(" && wrap())) insert(sign);
});
