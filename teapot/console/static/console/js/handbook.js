/* The handbook in a drawer beside the lines: F1, help NAME, /find WORDS. */
import htmx from "../../teapot/dist/htmx.js";
import { element, fragment, say } from "../../teapot/js/dom.js";
import { area, company } from "./field.js";

const drawer = document.getElementById("handbook-drawer");
const side = document.getElementById("side");
const LONGEST = 1000; // milliseconds

async function show(query) {
  const reply = await fetch(`${drawer.dataset.url}?${new URLSearchParams(query)}`).catch(() => null);
  if (reply?.ok) {
    drawer.innerHTML = await reply.text();
    const converter = document.getElementById("converter");
    if (converter) drawer.querySelector("#drawer-found").before(converter.content.cloneNode(true));
  } else if (!await showKept(query.name)) return say("The handbook cannot be reached at the moment.");
  htmx.process(drawer);
  drawer.hidden = false;
  side.classList.add("has-drawer", "is-open");
  drawer.scrollTop = 0;
}

/* Without a connection: the entry in the handbook as the browser has it; false where it has none. */
async function showKept(name) {
  const whole = await fetch(drawer.dataset.whole).catch(() => null);
  const entry = whole?.ok && name && fragment(await whole.text()).getElementById(name);
  if (!entry) return false;
  const close = element("button", { type: "button", className: "plain", textContent: "close" });
  close.dataset.closeDrawer = "";
  drawer.replaceChildren(element("div", { className: "drawer-head" }, close), ...entry.children);
  return true;
}

/** Closes the drawer; true where it was open. */
export function close() {
  if (drawer.hidden) return false;
  drawer.hidden = true;
  side.classList.remove("has-drawer", "is-open");
  area.focus();
  return true;
}

document.addEventListener("opens-handbook", (event) => show(event.detail.value));

const NAME = /([^\W\d]\w*)$/, OPEN_CALL = /([^\W\d]\w*)\((?:[^()]|\([^()]*\))*$/;

/** The name that the caret touches, or that of the call it is in; what was not read tells it too. */
function nameAtCaret() {
  const before = area.value.slice(0, area.selectionStart);
  const told = document.querySelector("#hint[data-key]:not([hidden])")?.dataset.key;
  return told || (NAME.exec(before) ?? OPEN_CALL.exec(before))?.[1] || "";
}

/* Whoever types fast presses the key before what they typed is read. */
async function untilRead() {
  const latest = Date.now() + LONGEST;
  while (area.value.trim() && !company() && Date.now() < latest) await new Promise((go) => setTimeout(go, 20));
}

document.addEventListener("keydown", (event) => {
  if (event.key === "F1") {
    event.preventDefault();
    untilRead().then(() => show({ name: nameAtCaret() }));
  } else if (event.key === "Escape" && event.target.closest("#handbook-drawer")) close();
});
document.addEventListener("submit", (event) => { if (event.target.closest("#handbook-drawer")) event.preventDefault(); });
document.addEventListener("click", (event) => {
  if (event.target.closest("[data-close-drawer]")) return close();
  const help = event.target.closest("[data-help]");
  if (!help || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  show({ name: help.dataset.help });
});
