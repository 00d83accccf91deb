/* A line mended where it stands: the entry itself goes there, with its reading, its
   completions, its card and its errors, and comes back when it is done.  What was half typed
   at the foot waits meanwhile. */
import { element, say } from "../../teapot/js/dom.js";
import { area, write } from "./field.js";
import { typedNow } from "./history.js";
import { askIn } from "./questions.js";
import { refuse } from "./refusal.js";

const box = document.getElementById("entry-box");
const home = document.getElementById("entry-home");
const sign = document.getElementById("mending");
const refusal = document.getElementById("refusal");
const label = area.getAttribute("aria-label");
let at = null; // { line, text, done, half }: where the entry is, and what waits at the foot

// the server is told where the line is that is being typed
area.addEventListener("htmx:configRequest", (event) => {
  if (at) event.detail.parameters[at.isNew ? "below" : "at"] = at.line.dataset.number;
});

export const isMending = () => Boolean(at);

/** Brings the entry to a line with ``text`` in it; ``done`` sends what is entered and gives
    null, or what is said against it. */
export function mendAt(line, text, done, isNew = false) {
  if (at) leaveMending();
  const half = area.value;
  at = { line, text, done, half, isNew };
  const place = element("div", { className: "in-place", id: "in-place" });
  place.dataset.testid = "in-place";
  if (isNew) line.append(place);
  else line.querySelector(".worked, .note-line").after(place);
  place.append(box);
  const number = line.dataset.number;
  sign.textContent = isNew ? `A line is typed below line ${number}. Escape leaves it.` : `Line ${number} is edited in place. Escape leaves it as it was.`;
  sign.hidden = false;
  area.setAttribute("aria-label", isNew ? "New line below" : "The line's text");
  // the caret goes behind the calculation, before a note
  const typed = line.querySelector(".typed code")?.textContent ?? "";
  write(text, !isNew && text.startsWith(typed) ? typed.length : text.length);
  place.scrollIntoView({ block: "nearest" });
}

function goHome() {
  home.append(box);
  document.getElementById("in-place")?.remove();
  sign.hidden = true;
  area.setAttribute("aria-label", label);
  const { line, half } = at;
  at = null;
  write(half);
  return line;
}

/** Leaves the line as it was. */
export function leaveMending() {
  if (!at) return false;
  goHome().focus();
  return true;
}

/** The line is gone: what was typed for it stays, at the foot or in the history. */
export function mendedIsGone() {
  const { line, text } = at;
  const typed = area.value;
  goHome();
  if (typed === text || !typed.trim()) return say(`Line ${line.dataset.number} was deleted elsewhere.`);
  typedNow(typed);
  if (!area.value) write(typed);
  say(`Line ${line.dataset.number} was deleted elsewhere. What you typed for it is ${area.value === typed ? "in the entry" : "one Up away"}.`);
}

export const isMendedIn = (node) => Boolean(at) && node.contains(box);

/** Sends what is entered. */
export async function submitMending(replies = [], theirs = undefined) {
  const { line, done } = at;
  const text = area.value;
  if (!text.trim()) return;
  const said = await done(text, replies, theirs);
  if (!at || at.line !== line) return;
  if (!said) {
    goHome();
    document.getElementById(`line-${line.dataset.number}`)?.focus();
    return;
  }
  refuse(said);
  if (said.matches(".conflict")) return choose(said);
  if (said.matches(".asks")) {
    const taken = replies.slice(0, Number(said.dataset.taken));
    const leave = () => { said.remove(); area.focus(); };
    return askIn(refusal, (reply) => submitMending([...taken, reply]), leave);
  }
  document.getElementById("in-place").scrollIntoView({ block: "nearest" });
}

/* The line was mended in another window: one of both texts is chosen. */
function choose(said) {
  said.querySelector("[data-keep-mine]").addEventListener("click", () => submitMending([], said.dataset.theirs));
  said.querySelector("[data-keep-theirs]").addEventListener("click", () => {
    typedNow(area.value); // one Up away
    leaveMending();
  });
  said.querySelector("[data-keep-mine]").focus();
  said.scrollIntoView({ block: "nearest" });
}

document.getElementById("preview").addEventListener("htmx:afterSettle", () => {
  if (at) document.getElementById("in-place").scrollIntoView({ block: "nearest" });
});
