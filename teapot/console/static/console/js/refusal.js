/* What is said against what is in the entry, in place of its reading. */
import { unitsOf } from "../../teapot/js/dom.js";
import { mark, unmark } from "./backdrop.js";
import { area } from "./field.js";

const preview = document.getElementById("preview");
const box = document.getElementById("refusal");
let isRefused = false;

/** Whether something is said: a reading that still arrives is of no use then. */
export const hasRefusal = () => isRefused;

/** What a reply says against a change that it refuses; null where it was made. */
export const refusalIn = (brought) => brought.querySelector("[data-refused]");

/** Shows what is said, and marks the place; of a text that goes on there is none. */
export function refuse(said, goesOn = false) {
  isRefused = true;
  preview.replaceChildren();
  box.replaceChildren(said);
  const error = box.querySelector(".error[data-start]");
  if (error && !goesOn) point(error);
  box.firstElementChild.classList.toggle("goes-on", goesOn);
}

/** Nothing is said against it. */
export function quiet() {
  isRefused = false;
  box.replaceChildren();
  unmark();
  area.removeAttribute("aria-invalid");
}

/* Marks the bad part; a bad name is selected, so that typing goes on with another. */
function point(error) {
  const start = unitsOf(area.value, Number(error.dataset.start));
  const end = unitsOf(area.value, Number(error.dataset.end));
  area.setAttribute("aria-invalid", "true");
  mark([[start, Math.max(end, start + 1), "bad"]]);
  if (error.dataset.code === "bad-name") area.setSelectionRange(start, end);
}
