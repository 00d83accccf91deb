/* A given value is changed where it stands in the list of quantities; a quantity is renamed,
   computed again, or forgotten. */
import { element } from "../../teapot/js/dom.js";
import { outbox } from "./waiting.js";
import { take } from "./news.js";
import { post } from "./server.js";

const side = document.getElementById("side");

async function change(field) {
  if (field.value.trim() === field.defaultValue.trim() || !field.value.trim()) return;
  const before = field.defaultValue, value = field.value;
  field.defaultValue = value;
  const reply = await post("/quantities/value", { name: field.dataset.valueOf, value });
  // of a value that is another by now nothing is said
  const made = await take(reply, { sayWhy: (text) => { if (field.value === value) refuse(field, text); } });
  if (!made) field.defaultValue = before;
}

/* What will not do stays where it was typed, with the reason; Escape brings the value back. */
function refuse(field, text) {
  accept(field);
  field.setAttribute("aria-invalid", "true");
  field.closest(".quantity").append(element("small", { className: "error", role: "alert" }, text));
}

function accept(field) {
  field.removeAttribute("aria-invalid");
  field.closest(".quantity").querySelector(":scope > .error")?.remove();
}

/* One unit of the last figure that is written, up or down. */
function nudged(text, way) {
  const places = (text.split(".")[1] || "").length;
  const scaled = BigInt(text.replace("−", "-").replace(".", "")) + BigInt(way);
  const minus = scaled < 0n ? "-" : "";
  const figures = (scaled < 0n ? -scaled : scaled).toString().padStart(places + 1, "0");
  return minus + (places ? `${figures.slice(0, -places)}.${figures.slice(-places)}` : figures);
}

/* The numbers of a value such as 1.032 ± 0.004 m; an exponent is none. */
const NUMBERS = /(?:(?<=^|\()[-−])?(?<![\w.^]|[eE][-+])\d+(?:\.\d+)?/g;

/* Nudges the number where the caret is, or the first; false where there is none. */
function nudge(field, way) {
  const value = field.value.trimEnd(), caret = field.selectionStart;
  const numbers = [...value.matchAll(NUMBERS)];
  const at = numbers.find(({ 0: text, index }) => index <= caret && caret <= index + text.length) || numbers[0];
  const made = at && nudged(at[0], way);
  const isUncertainty = at?.index && value[at.index - 1] !== "(";
  if (!at || (isUncertainty && made.startsWith("-"))) return false;
  field.value = value.slice(0, at.index) + made + value.slice(at.index + at[0].length);
  field.setSelectionRange(at.index + made.length, at.index + made.length);
  return true;
}

let pause = null;
side.addEventListener("keydown", (event) => {
  const field = event.target.closest("[data-value-of]");
  if (!field) return;
  if (event.key === "Enter") { event.preventDefault(); change(field); }
  if (event.key === "Escape") {
    field.value = field.defaultValue;
    accept(field);
  }
  const way = { ArrowUp: 1, ArrowDown: -1 }[event.key];
  if (!way || !("nudged" in field.dataset)) return;
  event.preventDefault();
  if (!nudge(field, way)) return;
  clearTimeout(pause);
  pause = setTimeout(() => change(field), 120);
});
side.addEventListener("input", (event) => {
  const field = event.target.closest("[data-value-of]");
  if (field) accept(field);
});
side.addEventListener("change", (event) => {
  const field = event.target.closest("[data-value-of]");
  if (field) change(field);
});

side.addEventListener("submit", async (event) => {
  const form = event.target.closest("[data-rename]");
  if (!form) return;
  event.preventDefault();
  await take(await post("/quantities/rename", { name: form.dataset.rename, new: form.elements.new.value }));
});

document.addEventListener("click", async (event) => {
  const again = event.target.closest("[data-again], [data-again-all]");
  if (again) take(await post("/quantities/again", { line: again.dataset.again || "" }), { stay: false });
  const forget = event.target.closest("[data-forget]");
  if (forget) outbox.put(`/forget ${forget.dataset.forget}`);
});
