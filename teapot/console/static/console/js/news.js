/* What is new: what a change brings, and what other windows did; taking a change back. */
import htmx from "../../teapot/dist/htmx.js";
import { aloud, fragment, say } from "../../teapot/js/dom.js";
import { area } from "./field.js";
import { open as openHandbook } from "./handbook.js";
import { showFlags, takeQuantities } from "./quantities.js";
import { CHUNK, run, show, showRunAnew } from "./run.js";
import { far, isAtFoot, toFoot } from "./scroll.js";
import { page, post } from "./server.js";

const EVERY = 4000; // milliseconds between two looks

const tell = (what, detail) => document.dispatchEvent(new CustomEvent(what, { detail }));

/** Shows what a reply to a change brings; true where the change was made. Why it was not is told
    at the edge of the page, or by ``sayWhy``. */
export async function take(reply, { stay = true, sayWhy = say } = {}) {
  if (!reply?.ok) {
    const isSaid = [429, 503].includes(reply?.status);
    sayWhy(isSaid ? await reply.text() : reply ? "The server could not do this." : "The connection is lost: nothing was changed.");
    return false;
  }
  const html = await reply.text();
  if (reply.headers.has("X-Refused")) {
    const said = fragment(html).querySelector(".asks label, .error").firstChild.textContent;
    sayWhy(reply.headers.has("X-Asks") ? `This asks: ${said} Type the line again to reply.` : said);
    return false;
  }
  return takeNews(html, reply.headers, stay);
}

/** Shows the lines and the quantities of a reply, and goes where it says. */
export function takeNews(html, headers, stay) {
  if (headers.has("X-Handbook")) openHandbook(decodeURIComponent(headers.get("X-Handbook")));
  if (headers.has("X-Run")) tell("asks-to-run", decodeURIComponent(headers.get("X-Run")));
  if (headers.has("X-Go")) { location.assign(headers.get("X-Go")); return true; }
  const revision = headers.get("X-Revision"), since = run.dataset.revision;
  const reply = fragment(html);
  const quantities = reply.getElementById("quantities-made");
  let shown = new Set();
  if (headers.has("X-Anew")) {
    showAnew(reply);
    run.dataset.revision = revision;
  } else if (Number(revision) >= Number(run.dataset.revision)) {
    shown = show(reply, !stay);
    run.dataset.revision = revision;
  } else if (!stay) toFoot();
  if (headers.has("X-Stale")) freshen(since, shown);
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
    if (reply.status === 200) takeNews(await reply.text(), reply.headers, !isAtFoot());
  } catch { /* no connection: asked again later */ }
}
setInterval(lookForNews, EVERY);
document.addEventListener("visibilitychange", lookForNews);

run.addEventListener("htmx:afterSettle", showFlags); // earlier lines came in

// -- undo and redo -----------------------------------------------------------

async function replay(what) {
  const reply = await post(`/${what}`);
  if (reply?.status === 204) return say(`There is nothing to ${what}.`);
  if (await take(reply)) say(`${what === "undo" ? "Undone" : "Done again"}: ${decodeURIComponent(reply.headers.get("X-Label"))}`);
}
export const undo = () => replay("undo");
export const redo = () => replay("redo");
document.getElementById("undo").addEventListener("click", undo);
document.getElementById("redo").addEventListener("click", redo);
