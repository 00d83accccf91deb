/* What is new: what a change brings, and what other windows did; taking a change back. */
import htmx from "../../teapot/dist/htmx.js";
import { aloud, fragment, say } from "../../teapot/js/dom.js";
import { area } from "./field.js";
import "./handbook.js";
import { showFlags, takeQuantities } from "./quantities.js";
import { refusalIn } from "./refusal.js";
import { CHUNK, run, show, showRunAnew } from "./run.js";
import { far, isAtFoot, toFoot } from "./scroll.js";
import { page, post } from "./server.js";

const EVERY = 4000; // milliseconds between two looks

/** Shows what a reply to a change brings; true where the change was made. Why it was not is told
    at the edge of the page, or by ``sayWhy``, which is given the refusal too where there is one. */
export async function take(reply, { stay = true, sayWhy = say } = {}) {
  if (!reply?.ok) {
    const isSaid = [429, 503].includes(reply?.status);
    sayWhy(isSaid ? await reply.text() : reply ? "The server could not do this." : "The connection is lost: nothing was changed.");
    return false;
  }
  const brought = fragment(await reply.text());
  const refusal = refusalIn(brought);
  if (!refusal) return takeNews(brought, reply.headers, stay);
  const said = (refusal.querySelector("label, p") ?? refusal).firstChild.textContent;
  sayWhy(refusal.matches(".asks") ? `This asks: ${said} Type the line again to reply.` : said, refusal);
  return false;
}

/* Does what the headers of a reply ask for, as htmx does after its own requests. */
function follow(headers) {
  if (headers.has("HX-Redirect")) location.assign(headers.get("HX-Redirect"));
  for (const [what, value] of Object.entries(JSON.parse(headers.get("HX-Trigger") ?? "{}"))) {
    document.dispatchEvent(new CustomEvent(what, { detail: { value } }));
  }
}

/** Shows the lines and the quantities that a reply brings, and goes where it says. */
export function takeNews(brought, headers, stay) {
  follow(headers);
  const { revision, stale } = brought.getElementById("news").dataset, since = run.dataset.revision;
  const quantities = brought.getElementById("quantities-made");
  let shown = new Set();
  if (brought.getElementById("run-anew")) {
    showAnew(brought);
    run.dataset.revision = revision;
  } else if (Number(revision) >= Number(run.dataset.revision)) {
    shown = show(brought, !stay);
    run.dataset.revision = revision;
  } else if (!stay) toFoot();
  if (stale !== undefined) freshen(since, shown);
  // the line is painted first
  requestAnimationFrame(() => requestAnimationFrame(() => takeQuantities(quantities)));
  return true;
}

/* The run, the settings and the light of the record, as a command left them. What is in the entry
   stays, and is read anew. */
function showAnew(reply) {
  const made = (id) => reply.getElementById(id).content.childNodes;
  showRunAnew(made("run-anew"));
  const form = document.getElementById("sheet-form"), head = document.querySelector("header nav");
  const before = settings(form);
  form.replaceChildren(...made("settings-anew"));
  const wasOn = head.querySelector(".recording-light");
  for (const light of head.querySelectorAll(".recording-light")) light.remove();
  head.prepend(...made("light-anew"));
  const isOn = head.querySelector(".recording-light");
  const told = settings(form).filter((one) => !before.includes(one));
  if (Boolean(isOn) !== Boolean(wasOn)) told.push(isOn ? "Recording begins" : "The recording has ended");
  if (told.length) aloud(told.join(". "));
  if (area.value.trim()) htmx.trigger(area, "preview");
}

const settings = (form) => [...form.elements].map((field) => `${field.labels[0].firstChild.textContent.trim()} ${field.value}`);

/* Answers that a change elsewhere has moved: those in sight come first, and those
   that came with the change itself are shown already. */
async function freshen(since, shown) {
  const lines = [...run.querySelectorAll(":scope > .line")].reverse()
    .filter((line) => !shown.has(line.dataset.number));
  const numbers = lines.map((line) => [far(line), line.dataset.number])
    .sort((one, other) => one[0] - other[0]).map(([, number]) => number);
  for (let at = 0; at < numbers.length; at += CHUNK) {
    const reply = await post("/lines/refresh", { since, numbers: numbers.slice(at, at + CHUNK) });
    if (!reply?.ok) return;
    show(fragment(await reply.text()));
  }
  showFlags();
}

/** Asks for what other windows did. */
export async function lookForNews() {
  if (document.hidden) return;
  try {
    const reply = await fetch(`${page().url}/lines?since=${run.dataset.revision}`);
    if (reply.status === 200) takeNews(fragment(await reply.text()), reply.headers, !isAtFoot());
  } catch { /* no connection: asked again later */ }
}
setInterval(lookForNews, EVERY);
document.addEventListener("visibilitychange", lookForNews);

run.addEventListener("htmx:afterSettle", showFlags); // earlier lines came in

// -- undo and redo -----------------------------------------------------------

async function replay(what) {
  const reply = await post(`/${what}`);
  if (reply?.status === 204) return say(`There is nothing to ${what}.`);
  take(reply);
}
document.addEventListener("says", (event) => say(event.detail.value));
export const undo = () => replay("undo");
export const redo = () => replay("redo");
document.getElementById("undo").addEventListener("click", undo);
document.getElementById("redo").addEventListener("click", redo);
