/* Behind the entry's text: the operands at the caret, matching brackets, the place of
   an error. And the parts of the line, by which a selection is widened. */
import { element, pointsOf, unitsOf } from "../../teapot/js/dom.js";
import htmx from "../../teapot/dist/htmx.js";
import { area, company, replaceRange } from "./field.js";

const backdrop = document.getElementById("backdrop");
const preview = document.getElementById("preview");
const spans = (text) => (text || "").split(" ").filter(Boolean)
  .map((span) => span.split(",").map((point) => unitsOf(area.value, Number(point))));

/** Marks ranges of the entry's text, each [start, end, class]; they do not overlap. */
export function mark(ranges) {
  const text = area.value;
  const parts = [];
  let at = 0;
  for (const [start, end, kind] of ranges.sort((a, b) => a[0] - b[0])) {
    if (start < at || end <= start) continue;
    parts.push(text.slice(at, start), element("mark", { className: kind, textContent: text.slice(start, end) }));
    at = end;
  }
  parts.push(text.slice(at));
  backdrop.replaceChildren(...parts);
  backdrop.scrollTop = area.scrollTop;
}

/** Takes all marks away. */
export const unmark = () => backdrop.replaceChildren();

function tint() {
  const known = company();
  if (area.hasAttribute("aria-invalid")) return;
  if (!known) return unmark();
  const pair = spans(known.brackets);
  // the other one of an unfinished line stands behind its end
  const kind = pair.every(([start, end]) => end > start) ? "bracket" : "bracket is-open";
  const brackets = pair.map(([start, end]) => [start, end, kind]);
  const operands = brackets.length ? [] : spans(known.operands).map(([start, end]) => [start, end, "bound"]);
  mark([...brackets, ...operands]);
}
// a caret that has moved on meanwhile is asked for again
let asked = 0;
preview.addEventListener("htmx:afterSwap", () => {
  tint();
  const hasMoved = document.activeElement === area && area.selectionStart !== asked;
  if (hasMoved && company() && !area.hasAttribute("aria-invalid")) htmx.trigger(area, "preview");
});
area.addEventListener("scroll", () => { backdrop.scrollTop = area.scrollTop; });

// the caret has moved: the reading tints other operands
let caret = 0;
document.addEventListener("selectionchange", () => {
  if (document.activeElement !== area || area.selectionStart === caret) return;
  caret = area.selectionStart;
  if (area.value.trim() && !area.hasAttribute("aria-invalid") && company()) htmx.trigger(area, "preview");
});
area.addEventListener("htmx:configRequest", (event) => {
  asked = area.selectionStart;
  event.detail.parameters.caret = pointsOf(area.value, area.selectionStart);
});

/** Widens the selection to the smallest part of the line that encloses it. */
export function widen() {
  const known = company();
  if (!known) return;
  const { selectionStart: start, selectionEnd: end } = area;
  const wider = spans(known.parts)
    .filter(([from, to]) => from <= start && to >= end && to - from > end - start)
    .sort((one, other) => (one[1] - one[0]) - (other[1] - other[0]))[0];
  if (wider) area.setSelectionRange(...wider);
}

/** Goes past a bracket that is after the caret already, where one more would be too many. */
export function stepOver(bracket) {
  const { selectionStart: start, selectionEnd: end, value } = area;
  const opening = { ")": "(", "]": "[" }[bracket];
  if (!opening || start !== end || value[start] !== bracket) return false;
  const count = (sign) => value.split(sign).length;
  if (count(opening) > count(bracket)) return false;
  area.setSelectionRange(start + 1, start + 1);
  return true;
}

/** Puts brackets around the selection; false where nothing is selected. */
export function wrap() {
  const { selectionStart: start, selectionEnd: end } = area;
  if (start === end) return false;
  const inner = area.value.slice(start, end);
  replaceRange(start, end, `(${inner})`);
  area.setSelectionRange(start, end + 2);
  return true;
}
