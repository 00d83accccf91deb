/* The plane: a complex number moved by mouse or keys. */
import { movable } from "./movable.js";

let at = { x: 0, y: 0, reach: 1 };
const plane = movable("plane", (made) => {
  at = { x: Number(made.x), y: Number(made.y), reach: Number(made.reach) };
  plane.face.setAttribute("aria-label", `The complex number ${made.text}: arrow keys move it by a step of the grid, with Shift by a tenth`);
});
const HALF = 210;

/* A number as a decimal with no exponent. */
const exactly = (number) => Number(number).toLocaleString("en", { useGrouping: false, maximumSignificantDigits: 15 });

/* The lines of the grid stand as far apart as the server draws them. */
function step() {
  const least = at.reach / 6;
  const power = 10 ** Math.floor(Math.log10(least));
  return [1, 2, 5, 10].map((part) => part * power).find((one) => one >= least);
}

/* The nearest multiple of a part of a step, as a decimal that says just that. */
function snapped(place, part) {
  const held = Math.max(-at.reach, Math.min(at.reach, place));
  return exactly(Number((Math.round(held / part) * part).toPrecision(12)));
}

function moveTo(re, im) {
  if (Number(re) === at.x && Number(im) === at.y) return;
  at = { ...at, x: Number(re), y: Number(im) };
  plane.ask({ re, im, reach: String(at.reach) });
}

function drag(event) {
  const [right, up] = plane.pointed(event);
  const part = step() / 10;
  moveTo(snapped((right / HALF) * at.reach, part), snapped((up / HALF) * at.reach, part));
}
plane.face.addEventListener("pointerdown", (event) => {
  plane.face.setPointerCapture(event.pointerId);
  drag(event);
});
plane.face.addEventListener("pointermove", (event) => { if (event.buttons) drag(event); });

plane.face.addEventListener("keydown", (event) => {
  const part = event.shiftKey ? step() / 10 : step();
  const ways = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
  if (event.key in ways) {
    const [across, up] = ways[event.key];
    moveTo(across ? snapped(at.x + across * part, part) : exactly(at.x), up ? snapped(at.y + up * part, part) : exactly(at.y));
  } else if (event.key === "Enter") plane.use();
  else return;
  event.preventDefault();
});

plane.readout.addEventListener("click", (event) => {
  const point = event.target.closest("[data-to-x]");
  if (!point) return;
  plane.ask({ re: exactly(point.dataset.toX), im: exactly(point.dataset.toY), reach: String(at.reach) });
  plane.face.focus();
});
