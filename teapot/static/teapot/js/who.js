/* Whose this page is.  As soon as the browser is nobody's, or somebody else's, it shows nothing any
   more: other windows tell of it, or the next reply does.  What was typed and not sent is asked
   about before it is removed. */
import { element, storeNothing } from "./dom.js";

const OUT = "/account/sign-in/out", ALL = "teapot-", UNSENT = /^teapot-(outbox|draft)-/;
const LOOKS = ["teapot-theme", "teapot-room"]; // of the machine, not of a person
const CLEARS = "teapot-clears"; // in a window that signs out, and has asked
const { who } = document.documentElement.dataset;
const channel = typeof BroadcastChannel === "function" ? new BroadcastChannel("teapot-who") : null;
const landing = document.querySelector("[data-left-behind]");

function leave() {
  if (landing) return;
  document.body.replaceChildren();
  location.replace(OUT);
}

/** A reply, unless it is for somebody else: then the page is left. */
export function checked(reply) {
  const to = reply.headers.get("X-Who");
  if (who && to && to !== who) leave();
  return reply;
}

document.addEventListener("htmx:beforeSwap", (event) => {
  const to = event.detail.xhr.getResponseHeader("X-Who");
  if (!who || !to || to === who) return;
  event.detail.shouldSwap = false;
  leave();
});
channel?.addEventListener("message", () => { storeNothing(); leave(); }); // the storage is empty

const keys = () => { try { return Object.keys(localStorage).filter((key) => key.startsWith(ALL) && !LOOKS.includes(key)); } catch { return []; } };

function unsent() {
  return keys().filter((key) => UNSENT.test(key)).map((key) => JSON.parse(localStorage.getItem(key))).filter((item) => item.text?.trim() && !item.gone);
}

function empty() {
  for (const key of keys()) localStorage.removeItem(key);
  channel?.postMessage("out");
}

const list = (items) => items.map((item) => element("li", {}, element("code", { textContent: item.text })));

function land() {
  const left = unsent();
  if (!left.length || sessionStorage.getItem(CLEARS) || landing.dataset.leftBehind === "all") return empty();
  landing.querySelector("ul").replaceChildren(...list(left));
  landing.hidden = false;
  landing.querySelector("button").addEventListener("click", () => { empty(); landing.hidden = true; });
}

if (landing) land();
sessionStorage.removeItem(CLEARS);

const form = document.querySelector("form[data-signs-out]"), dialog = document.getElementById("unsent-dialog");

form?.addEventListener("submit", (event) => {
  const left = unsent();
  if (left.length && dialog.returnValue !== "lose") {
    event.preventDefault();
    dialog.querySelector("ul").replaceChildren(...list(left));
    dialog.showModal();
  } else sessionStorage.setItem(CLEARS, "1");
});
dialog?.addEventListener("close", () => { if (dialog.returnValue === "lose") form.requestSubmit(); });
