/* The entry: typing, its preview, Enter, and what comes back. */
import htmx from "../../teapot/dist/htmx.js";
import { openDialog, types } from "../../teapot/js/dom.js";
import { stepOver, widen, wrap } from "./backdrop.js";
import { close as closeCompletions, takesKey } from "./completion.js";
import { area, insert, write } from "./field.js";
import { close as closeHandbook } from "./handbook.js";
import { typedNow, walk, writeOver } from "./history.js";
import { isMending, leaveMending, submitMending } from "./mending.js";
import { lookForNews, redo, take, takeNews, undo } from "./news.js";
import { hasRefusal, quiet, refuse, refusalIn } from "./refusal.js";
import { toLastLine } from "./run.js";
import { post } from "./server.js";
import { draft, outbox, putAside } from "./waiting.js";

const preview = document.getElementById("preview");
const AGAIN_FIRST = 200, AGAIN_LAST = 3200; // milliseconds before a reading that did not come is asked for again
const FLOW = 400; // milliseconds in which a key belongs to what was being typed before
const again = { pause: AGAIN_FIRST, timer: 0 };
let returned = null; // a refused line that is back in the entry: { item, said, until }

// -- the entry's own looks ------------------------------------------------

const fitsItself = CSS.supports("field-sizing", "content"); // by its style

function fit() {
  if (fitsItself) return;
  area.style.height = "auto";
  area.style.height = `${area.scrollHeight}px`;
}

area.addEventListener("input", () => {
  quiet();
  fit();
  if (!isMending()) draft.write({ text: area.value });
  clearTimeout(again.timer);
  again.pause = AGAIN_FIRST;
  if (area.value.trim()) return htmx.trigger(area, "preview");
  preview.replaceChildren();
  document.getElementById("hint").hidden = true;
});

// a reading that comes after its line was sent is of no use any more
preview.addEventListener("htmx:beforeSwap", (event) => {
  if (hasRefusal() || !area.value.trim()) event.detail.shouldSwap = false;
});

/* What the server could not read yet, or did not get to, is asked for again as long as nothing
   newer is typed: it was busy, or a long sheet is read in parts. */
function askAgain() {
  clearTimeout(again.timer);
  again.timer = setTimeout(() => { if (area.value.trim()) htmx.trigger(area, "preview"); }, again.pause);
  again.pause = Math.min(2 * again.pause, AGAIN_LAST);
}
preview.addEventListener("htmx:afterSwap", () => { if (preview.querySelector("[data-goes-on]")) askAgain(); });
area.addEventListener("htmx:afterRequest", (event) => {
  const { status } = event.detail.xhr; // 0 without a connection, 204 where another window's came first
  if ([0, 204, 429].includes(status) || status >= 500) askAgain();
});

// -- keys ---------------------------------------------------------------------

area.addEventListener("keydown", (event) => {
  if (event.isComposing) return;
  if (returned) giveWay(event);
  if (takesKey(event)) return event.preventDefault();
  const plain = !event.ctrlKey && !event.altKey && !event.metaKey;
  if (event.key === "Enter" && plain && !event.shiftKey) submit();
  else if (event.key === "Escape") drop();
  else if (event.key === "ArrowUp" && event.altKey) widen();
  else if (event.key === "ArrowUp" && event.ctrlKey) openDialog("history-dialog");
  else if (event.key === "PageUp" && plain) toLastLine();
  else if (event.key.toLowerCase() === "z" && event.ctrlKey && !area.value) (event.shiftKey ? redo : undo)();
  else if (!(event.key === "(" && types(event) && wrap())
    && !(types(event) && stepOver(event.key))
    && !(event.key === "ArrowUp" && plain && !event.shiftKey && walk(-1))
    && !(event.key === "ArrowDown" && plain && !event.shiftKey && walk(1))) return;
  event.preventDefault();
});

function submit() {
  const text = area.value;
  if (!text.trim()) return;
  closeCompletions();
  if (isMending()) return submitMending();
  outbox.put(text); // what takes longest begins first
  write("");
  typedNow(text);
}

/* A key that comes too soon after a refused line is back in the entry belongs to the
   next line, which the person has begun meanwhile: the refused one is put aside. */
function giveWay(event) {
  const { item, said, until } = returned;
  if (types(event) && performance.now() < until && area.value === item.text) {
    write("");
    putAside(item.text, said);
  }
  if (event.key !== "Shift") returned = null;
}

function drop() {
  if (leaveMending()) return;
  if (closeHandbook()) return; // what is open goes before what is half typed
  if (area.value.trim()) typedNow(area.value);
  write("");
}

// -- replies ------------------------------------------------------------------

outbox.on.kept = (item, brought, headers) => {
  if (!area.value && !isMending()) quiet();
  takeNews(brought, headers, Boolean(item.below));
};

/* A refused line comes back into the entry if nothing else was begun there since it
   was sent; else it is put aside. */
outbox.on.refused = (item, brought) => {
  const said = refusalIn(brought), goesOn = said.dataset.refused === "unfinished";
  const isFree = !area.value && !isMending() && item.tries === 1 && !outbox.items.length && !item.below;
  if (!isFree) return putAside(item.text, said);
  write(goesOn ? `${item.text}\n` : item.text);
  if (!goesOn) returned = { item, said, until: performance.now() + FLOW };
  refuse(said, goesOn);
};

// -- things to click --------------------------------------------------------------

document.addEventListener("click", (event) => {
  const mend = event.target.closest("[data-mend]");
  if (mend && (mend.closest("#entry-box") || !mend.closest(".line, #waiting"))) return write(mend.dataset.mend);
  const put = event.target.closest("[data-put]");
  if (!put) return;
  if (!area.value) return write(put.dataset.put);
  insert(put.dataset.put);
});

// typing anywhere goes into the entry
document.addEventListener("keydown", (event) => {
  const free = !event.target.closest("input, textarea, button, a, summary, dialog, .line");
  if (free && (types(event) || event.key === "Escape")) area.focus();
});

const setting = document.getElementById("sheet-form");
setting.addEventListener("submit", (event) => event.preventDefault());
setting.addEventListener("change", async (event) => {
  const field = event.target;
  const taken = await take(await post(`/settings/${field.name}`, { value: field.value }));
  if (!taken) setting.reset();
  else if (field.options) for (const option of field.options) option.defaultSelected = option.selected;
  else field.defaultValue = field.value;
  if (area.value.trim()) htmx.trigger(area, "preview");
});

if (!area.value) area.value = draft.read().text || "";
const put = new URLSearchParams(location.search).get("put");
if (put) history.replaceState(null, "", location.pathname);
document.addEventListener("DOMContentLoaded", () => { // from then on it can be asked for
  if (put) writeOver(put);
  else if (area.value) area.dispatchEvent(new Event("input", { bubbles: true }));
});
outbox.on.taken = lookForNews;
outbox.send();
outbox.adopt();
// a title that is set leads back to where one types
document.addEventListener("submit", (event) => { if (event.target.id === "title") area.focus(); });
