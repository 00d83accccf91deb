/* The run of lines: what is new is shown, in its place. */
import htmx from "../../teapot/dist/htmx.js";
import { aloud, element, fragment } from "../../teapot/js/dom.js";
import { area } from "./field.js";
import { isMendedIn, mendedIsGone } from "./mending.js";
import { morph } from "./morph.js";
import { isAtFoot, toFoot } from "./scroll.js";
import { page, post } from "./server.js";
import { refreshWorkings, showGraph } from "./workings.js";

export const run = document.getElementById("run");
export const CHUNK = 60; // lines that are asked for at once
const [MOST_LINES, LEFT_LINES] = [160, 100]; // that are on the page
const PAUSES = [0, 1000, 3000, 9000, 27000]; // before answers that were late are asked for again

function putInPlace(line) {
  const focused = line.contains(document.activeElement) ? document.activeElement : null;
  line.remove();
  const lines = [...run.querySelectorAll(":scope > .line")];
  // nearly always at the foot, so looked for from there
  let at = lines.length;
  while (at && Number(lines[at - 1].dataset.place) > Number(line.dataset.place)) at -= 1;
  if (at) lines[at - 1].after(line);
  else if (lines.length) lines[0].before(line);
  else run.append(line);
  focused?.focus({ preventScroll: true });
}

function place(line) {
  const here = document.getElementById(line.id);
  const isMoved = !here || here.dataset.place !== line.dataset.place;
  if (here) {
    morph(here, line);
    refreshWorkings(here);
    if (here.querySelector("[data-chart=graph]")) showGraph(here);
  }
  if (isMoved) putInPlace(here || line);
}

/** Shows the lines of a reply, and goes to the last one where that is wanted, or was in sight;
    returns their numbers. */
export function show(reply, goesToFoot = false) {
  const stays = goesToFoot || isAtFoot(); // which has the page laid out only to know it
  const shown = new Set();
  for (const gone of reply.querySelectorAll("[data-gone]")) {
    const line = document.getElementById(`line-${gone.dataset.gone}`);
    if (line && isMendedIn(line)) mendedIsGone();
    line?.remove();
  }
  const known = new Set([...run.querySelectorAll(":scope > .line")].map((line) => line.dataset.number));
  for (const line of reply.querySelectorAll(".line")) {
    shown.add(line.dataset.number);
    if (!known.has(line.dataset.number)) announce(line);
    place(line);
  }
  showWhatIsThere();
  if (stays) {
    trim();
    toFoot();
  }
  if (reply.querySelector("[data-waiting]") || run.querySelector("[data-waiting]")) workOut();
  return shown;
}

/* What a new line answered, once and without its buttons. */
function announce(line) {
  const answers = [...line.querySelectorAll("[data-testid=answer]")]
    .map((one) => `${one.dataset.name ?? ""} ${one.dataset.sign} ${one.dataset.text}`.trim());
  const notices = [...line.querySelectorAll(".notice")].map((one) => one.firstChild.textContent);
  aloud(`Line ${line.dataset.number}: ${[...answers, ...notices].join(". ") || "noted"}`);
}

/* Lines far above leave the page, which stays as quick as a short one; they come back as one
   scrolls to them. */
function trim() {
  const lines = [...run.querySelectorAll(":scope > .line")];
  if (lines.length <= MOST_LINES) return;
  const leaving = lines.slice(0, lines.length - LEFT_LINES);
  if (leaving.some((line) => line.matches("[data-waiting], :focus-within, :has(.workings, .in-place, .chart-box)"))) return;
  for (const one of [...leaving, ...run.querySelectorAll(":scope > .earlier")]) one.remove();
  const first = lines[lines.length - LEFT_LINES].dataset.number;
  const earlier = element("div", { className: "earlier", textContent: "Earlier lines …" });
  earlier.setAttribute("hx-get", `${page().url}/earlier?before=${first}`);
  earlier.setAttribute("hx-trigger", "intersect root:#scroll once");
  earlier.setAttribute("hx-swap", "outerHTML");
  run.prepend(earlier);
  htmx.process(earlier);
}

/** Shows these lines and no others, but for one that is being mended. */
export function showRunAnew(nodes) {
  const wasIn = run.contains(document.activeElement);
  const fresh = [...nodes].filter((node) => node.nodeType === Node.ELEMENT_NODE);
  const ids = new Set(fresh.map((one) => one.id));
  for (const one of [...run.children]) if (!ids.has(one.id) && !isMendedIn(one)) one.remove();
  for (const one of fresh) {
    if (one.matches(".line")) place(one);
    else run.prepend(one); // the way to the lines before
  }
  htmx.process(run);
  if (wasIn && document.activeElement === document.body) area.focus();
  showWhatIsThere();
  toFoot();
  if (numbersWaiting().length) workOut();
}

function showWhatIsThere() {
  const hasLines = Boolean(run.querySelector(".line"));
  document.getElementById("blank").hidden = hasLines;
  if (hasLines) document.getElementById("tries")?.remove();
}

const numbersWaiting = () => [...run.querySelectorAll(":scope > .line[data-waiting]")].reverse()
  .map((line) => line.dataset.number);

/* Asks again for answers that could not be worked out in time, the last ones first:
   fewer at once where none came, and after a while once more. */
let working = false;
async function workOut() {
  if (working) return;
  working = true;
  for (const pause of PAUSES) {
    if (pause) await new Promise((done) => { setTimeout(done, pause); });
    await workOutOnce();
    if (!numbersWaiting().length) break;
  }
  working = false;
}

async function workOutOnce() {
  const late = new Set();
  let size = CHUNK;
  while (true) {
    const batch = numbersWaiting().filter((number) => !late.has(number)).slice(0, size);
    if (!batch.length) return;
    const reply = await post("/lines/refresh", { since: run.dataset.revision, numbers: batch });
    if (!reply?.ok) return;
    show(fragment(await reply.text()));
    const still = new Set(numbersWaiting());
    if (!batch.every((number) => still.has(number))) continue;
    if (size === 1) late.add(batch[0]);
    size = Math.ceil(size / 4);
  }
}
run.addEventListener("click", (event) => { if (event.target.closest("[data-work-out]")) workOut(); });

/** To the last line, from the entry. */
export const toLastLine = () => run.querySelector(":scope > .line:last-of-type")?.focus();

if (numbersWaiting().length) workOut();
run.addEventListener("htmx:afterSettle", () => { if (numbersWaiting().length) workOut(); });
