/* The range of a graph is moved by the wheel, a drag, keys or buttons; the server draws it anew. */
import { fragment, say } from "../../teapot/js/dom.js";
import { page } from "./server.js";

const STEP = 1.5; // how much closer one step comes
const LEAST = 1e-9; // of the distance from 0: closer than this the ends cannot be told apart

/** What the page knows of a graph that is drawn: its ends, and where these are in the picture. */
export const readingsOf = (box) => JSON.parse(box.querySelector("[data-readings]").dataset.readings);

/** Where a pointer is along the range: 0 at its left end, 1 at its right one. */
export function shareAt(svg, { from, to }, clientX) {
  const box = svg.getBoundingClientRect();
  return (((clientX - box.left) / box.width) * svg.viewBox.baseVal.width - from) / (to - from);
}

const wanted = new Map(); // boxes with the range that each shall show next
let isBusy = false;

/** Shows a graph over another range, or as it is typed; of several that follow fast, the last. */
async function show(box, range) {
  wanted.set(box, range);
  if (isBusy) return;
  isBusy = true;
  for (const [next, query] of wanted) {
    wanted.delete(next);
    await draw(next, query);
  }
  isBusy = false;
}

async function draw(box, query) {
  const number = box.closest(".line").dataset.number;
  const reply = await fetch(`${page().url}/lines/${number}/pictures/graph?${query}`).catch(() => null);
  if (reply?.status === 422) return say(await reply.text());
  if (!reply?.ok) return say("The graph could not be loaded.");
  const anew = fragment(await reply.text()).querySelectorAll(".drawn");
  box.querySelectorAll(".drawn").forEach((one, at) => one.replaceWith(anew[at]));
  box.dataset.range = query;
  box.querySelector("[data-range-as=typed]").disabled = !query;
}

/** Goes so much aside, in parts of the range, or so much closer about a place in it. */
export function move(box, { aside = 0, closer = 1, about = 0.5 }) {
  const { left, right } = readingsOf(box);
  const width = (right - left) / closer;
  if (width < LEAST * Math.max(Math.abs(left), Math.abs(right))) return;
  const start = left + (right - left) * (about + aside) - width * about;
  show(box, new URLSearchParams({ left: start.toPrecision(12), right: (start + width).toPrecision(12) }));
}

const STEPS = {
  closer: (box) => move(box, { closer: STEP }),
  farther: (box) => move(box, { closer: 1 / STEP }),
  typed: (box) => show(box, ""),
};
const KEYS = { "+": "closer", "=": "closer", "-": "farther", "−": "farther", Home: "typed" };

const run = document.getElementById("run");
/** The graph in which something happens. */
export const boxOf = (event) => event.target.closest?.("[data-chart=graph]");

run.addEventListener("click", (event) => {
  const button = event.target.closest("[data-range-as]");
  if (button) STEPS[button.dataset.rangeAs](boxOf(event));
});

run.addEventListener("keydown", (event) => {
  const step = KEYS[event.key];
  if (!step || event.target !== boxOf(event) || event.altKey || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  STEPS[step](event.target);
});

/* The wheel scrolls the sheet, but for a graph that was chosen before. */
run.addEventListener("wheel", (event) => {
  const box = boxOf(event);
  const svg = event.target.closest?.("svg");
  if (!svg || !box?.contains(document.activeElement) || !event.deltaY) return;
  event.preventDefault();
  move(box, { closer: event.deltaY < 0 ? STEP : 1 / STEP, about: shareAt(svg, readingsOf(box), event.clientX) });
}, { passive: false });

let held = null; // the graph that a pointer drags, and where it took hold of it

run.addEventListener("pointerdown", (event) => {
  const box = boxOf(event);
  if (!box || !event.target.closest("svg") || event.button) return;
  box.focus({ preventScroll: true });
  held = { box, at: event.clientX, range: readingsOf(box) };
});
run.addEventListener("pointermove", (event) => {
  if (!held || !(event.buttons & 1)) return;
  const { box, at, range } = held;
  const svg = box.querySelector("svg");
  const gone = shareAt(svg, range, at) - shareAt(svg, range, event.clientX);
  if (Math.abs(event.clientX - at) < 4) return;
  const [left, right] = [range.left, range.right].map((end) => (end + gone * (range.right - range.left)).toPrecision(12));
  show(box, new URLSearchParams({ left, right }));
});
document.addEventListener("pointerup", () => { held = null; });
document.addEventListener("pointercancel", () => { held = null; });
