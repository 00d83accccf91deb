/* The dial: turned by mouse or keys, at the angle of a line or the one at the caret; what
   it shows is worked out by the server. */
import { area } from "./field.js";
import { movable } from "./movable.js";

const snap = document.getElementById("dial-snap");
const SPECIAL = [0, 30, 45, 60, 90, 120, 135, 150, 180, 210, 225, 240, 270, 300, 315, 330, 360];
const NEAR = 3;
let degrees = 30;
const dial = movable("dial", (made, readout) => {
  degrees = Number(made.degrees);
  face.setAttribute("aria-valuenow", String(degrees));
  face.setAttribute("aria-valuetext", readout.querySelector("[data-use]").dataset.use);
});
const { face, ask, use } = dial;

const turnTo = (count) => {
  degrees = count;
  ask({ count: String(Number(count.toFixed(4))), unit: "deg" });
};

/** The angle typed at the caret: a number with its unit, or one that a sine reads. */
function typedAngle() {
  const sheetUnit = document.querySelector("#sheet-form [name=angle]").value;
  const angles = /(\d{1,6}(?:\.\d{1,6})?)(?:\s*(°|(?:deg|rad|gon|turn)\b))?/g;
  for (const found of area.value.matchAll(angles)) {
    const start = found.index, end = start + found[0].length;
    if (area.selectionStart < start || area.selectionStart > end) continue;
    const isRead = /\b(sin|cos|tan|cot|sec|csc)\s*\(\s*$/.test(area.value.slice(0, start));
    if (!found[2] && !isRead) return null;
    return { start, end, count: found[1], unit: found[2] === "°" ? "deg" : found[2] || sheetUnit };
  }
  return null;
}

function openDial(line) {
  const typed = line ? null : typedAngle();
  // what the dial gives then takes its place
  if (typed) area.setSelectionRange(typed.start, typed.end);
  if (line) dial.open({ line });
  else dial.open(typed ? { count: typed.count, unit: typed.unit } : { count: String(degrees), unit: "deg" });
}

/** The angle of a pointer, nearest to the one at hand so that it can go past 0. */
function fromPointer(event) {
  const [x, y] = dial.pointed(event);
  let found = (Math.atan2(y, x) * 180) / Math.PI;
  found += 360 * Math.round((degrees - found) / 360);
  if (!snap.checked) return Number(found.toFixed(1));
  const turn = 360 * Math.floor(found / 360);
  const special = SPECIAL.find((mark) => Math.abs(found - turn - mark) < NEAR);
  return special === undefined ? Math.round(found) : turn + special;
}
const within = (count) => Math.max(-360, Math.min(360, count));

face.addEventListener("pointerdown", (event) => {
  face.setPointerCapture(event.pointerId);
  turnTo(within(fromPointer(event)));
});
face.addEventListener("pointermove", (event) => {
  if (!event.buttons) return;
  const found = within(fromPointer(event));
  if (found !== degrees) turnTo(found);
});
face.addEventListener("keydown", (event) => {
  const step = event.shiftKey ? 15 : 1;
  const ways = { ArrowLeft: step, ArrowUp: step, ArrowRight: -step, ArrowDown: -step };
  if (event.key in ways) {
    const base = event.shiftKey ? Math.round(degrees / 15) * 15 : degrees;
    turnTo(within(Number((base + ways[event.key]).toFixed(4))));
  } else if (event.key === "Home") turnTo(0);
  else if (event.key === "Enter") use();
  else return;
  event.preventDefault();
});

document.addEventListener("keydown", (event) => {
  if (!(event.ctrlKey || event.metaKey) || event.key !== "'") return;
  event.preventDefault();
  openDial(event.target.closest(".line")?.querySelector("[data-picture=dial]")?.dataset.of);
});
