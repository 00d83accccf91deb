/* The page of a procedure: its lines are read as they are typed, kept, asked for and run. */
import htmx from "../teapot/dist/htmx.js";
import { start } from "../teapot/js/base.js";
import { element, store, stored } from "../teapot/js/dom.js";
import { stepOver, unmark, widen, wrap } from "../console/js/backdrop.js";
import { takesKey } from "../console/js/completion.js";
import { area, write } from "../console/js/field.js";
import { oneAfterAnother } from "../console/js/questions.js";

const page = document.getElementById("procedure");
const writing = document.getElementById("writing");
const draftKey = `teapot-procedure-${page.dataset.id}`;
let kept = area.defaultValue; // more may have been typed before this was there
let waiting = 0;

const ruler = document.getElementById("ruler");

/* Each reading stands beside its rows. */
function align() {
  const texts = area.value.split("\n");
  ruler.replaceChildren(...texts.map((text) => element("div", { textContent: text || " " })));
  const rows = [...ruler.children];
  const list = document.querySelector("#readings .its-lines");
  list.style.minHeight = `${ruler.offsetHeight}px`;
  let at = 0;
  for (const reading of list.querySelectorAll("[data-input]")) {
    const input = reading.dataset.input.split("\n");
    while (at < texts.length && texts[at].trim() !== input[0].trim()) at += 1;
    if (at === texts.length) return; // it was typed on since: what is read next comes soon
    const last = rows[Math.min(at + input.length, rows.length) - 1];
    reading.style.top = `${rows[at].offsetTop}px`;
    reading.style.height = `${last.offsetTop + last.offsetHeight - rows[at].offsetTop}px`;
    at += input.length;
  }
}

function fit() {
  align();
  area.style.height = `${Math.max(ruler.offsetHeight, 10 * ROW)}px`;
}
const ROW = 36; // the height of one, in pixels
document.getElementById("readings").addEventListener("htmx:afterSwap", align);
window.addEventListener("resize", fit);
const readAgain = () => htmx.trigger("#readings", "read-again");

area.addEventListener("input", () => {
  fit();
  store(draftKey, area.value);
  unmark();
  htmx.trigger(area, "preview");
  clearTimeout(waiting);
  waiting = setTimeout(readAgain, 350);
});
area.addEventListener("keydown", (event) => {
  if (event.isComposing) return;
  if (event.key === "Tab" && document.getElementById("completions").hidden) return; // to the next field
  if (takesKey(event)) return event.preventDefault();
  if (event.key === "Enter" && event.ctrlKey) {
    event.preventDefault();
    (document.querySelector("#asked [name=reply]") || document.querySelector("[data-testid=run]")).focus();
  } else if (event.key === "Enter" && event.altKey) {
    event.preventDefault();
    form.requestSubmit(form.querySelector("[name=chosen]"));
  } else if (event.key === "F1") {
    const before = /[\p{L}\w]*$/u.exec(area.value.slice(0, area.selectionStart))[0];
    const behind = /^[\p{L}\w]*/u.exec(area.value.slice(area.selectionStart))[0];
    window.open(`${page.dataset.handbook}?words=${encodeURIComponent(before + behind)}`);
    event.preventDefault();
  } else if (event.key === "ArrowUp" && event.altKey) {
    widen();
    event.preventDefault();
  } else if ((event.key === "(" && wrap()) || stepOver(event.key)) event.preventDefault();
});
document.addEventListener("keydown", (event) => {
  if (event.ctrlKey && event.key.toLowerCase() === "s") {
    event.preventDefault();
    writing.requestSubmit();
  }
});

function isKept() {
  kept = area.value;
  store(draftKey, null);
}
document.getElementById("kept").addEventListener("htmx:afterSwap", isKept);
window.addEventListener("beforeunload", (event) => { if (area.value !== kept) event.preventDefault(); });

// -- running -------------------------------------------------------------------------

const form = document.getElementById("run-form");
const ran = document.getElementById("ran");
const step = form.querySelector("[data-step]");
const byStep = document.getElementById("by-step");

oneAfterAnother(form);

// the button that was pressed says whether all lines are run, or those that are chosen
form.addEventListener("htmx:configRequest", (event) => {
  if (event.detail.triggeringEvent?.submitter?.name !== "chosen") return;
  event.detail.parameters.from = area.selectionStart;
  event.detail.parameters.to = area.selectionEnd;
});
// it is stopped as soon as it is worked on: it may wait for its turn just now
const running = () => document.querySelector(".htmx-request > * [data-stop], .htmx-request > [data-stop]");
async function stop() {
  while (running()) {
    await htmx.ajax("POST", page.dataset.stoppedAt, { source: "#procedure", swap: "none" });
    await new Promise((done) => { setTimeout(done, 200); });
  }
}
document.addEventListener("keydown", (event) => { if (event.key === "Escape" && running()) stop(); });
document.addEventListener("click", (event) => { if (event.target.closest("[data-stop]")) stop(); });

function showSteps(count) {
  const lines = [...ran.querySelectorAll(".output > li")];
  lines.forEach((line, at) => { line.hidden = at >= count; });
  step.hidden = count >= lines.length;
  step.dataset.shown = count;
}
step.addEventListener("click", () => showSteps(Number(step.dataset.shown) + 1));
ran.addEventListener("htmx:afterSwap", () => {
  if (area.value !== kept) isKept();
  const wrong = ran.querySelector("[data-wrong]");
  step.hidden = true;
  for (const field of form.querySelectorAll("[name=reply]")) field.removeAttribute("aria-invalid");
  if (wrong) {
    const field = [...form.querySelectorAll("[name=reply]")].find((one) => one.dataset.key === wrong.dataset.wrong);
    field?.setAttribute("aria-invalid", "true");
    field?.focus();
    field?.select();
  } else if (byStep.checked) showSteps(1);
});

document.addEventListener("click", (event) => {
  if (!event.target.closest("[data-bring-back]")) return;
  write(document.querySelector("[data-testid=old-version]").textContent);
  writing.requestSubmit();
});

fit();
const draft = stored(draftKey);
if (area.value !== kept) {
  document.addEventListener("DOMContentLoaded", () => area.dispatchEvent(new Event("input", { bubbles: true })));
} else if (draft !== null && draft !== kept) {
  area.value = draft;
  fit();
  document.addEventListener("DOMContentLoaded", readAgain);
}
start();
