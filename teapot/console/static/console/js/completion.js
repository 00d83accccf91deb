/* The names that the word at the caret may become. The list only shows itself: it takes
   no key until Tab goes into it. */
import { aloud, unitsOf } from "../../teapot/js/dom.js";
import { area, company, replaceRange } from "./field.js";

const list = document.getElementById("completions");
let chosen = -1;
let madeFor = ""; // the text that the rows came for
let told = ""; // how many were told of
let wanted = false; // Tab was pressed before the rows for this text came

const rows = () => [...list.querySelectorAll("[role=option]")];
const isOpen = () => !list.hidden && rows().length > 0;

function choose(at) {
  chosen = at;
  rows().forEach((row, place) => row.setAttribute("aria-selected", String(place === at)));
  rows()[at]?.scrollIntoView({ block: "nearest" });
  if (at < 0) area.removeAttribute("aria-activedescendant");
  else area.setAttribute("aria-activedescendant", rows()[at].id);
}

/** Closes the list; true where it was open. */
export function close() {
  if (!isOpen()) return false;
  list.hidden = true;
  choose(-1);
  return true;
}

function take(row) {
  const { insert, start, end, back } = row.dataset;
  const from = unitsOf(madeFor, Number(start));
  const to = unitsOf(madeFor, Number(end));
  // letters that were typed since the rows came belong to the word that is replaced
  const since = area.value.startsWith(madeFor) ? area.value.slice(madeFor.length) : null;
  close();
  if (since === null || (since && (to < madeFor.length || !/^[\p{L}\w ]*$/u.test(since)))) return;
  replaceRange(from, area.value.length - (madeFor.length - to), insert);
  const caret = from + insert.length - Number(back);
  area.setSelectionRange(caret, caret);
}

/* Shows the rows that came for the text that is in the entry. */
function show(made) {
  const before = isOpen() && chosen >= 0 ? rows()[chosen].dataset.name : null;
  list.replaceChildren(...made);
  rows().forEach((row, place) => (row.id = `completion-${place + 1}`));
  madeFor = area.value;
  list.hidden = !made.length || document.activeElement !== area;
  const count = list.hidden ? "" : `${made.length} completion${made.length === 1 ? "" : "s"}, Tab takes one`;
  if (count !== told) aloud(count);
  told = count;
  choose(before === null ? -1 : rows().findIndex((row) => row.dataset.name === before));
  if (wanted && made.length) tab(1);
  wanted = false;
}

/* The rows of an older list which what was typed since still begins. */
function stillFitting() {
  if (!isOpen() || !area.value.startsWith(madeFor)) return [];
  const typed = (row) => area.value.slice(unitsOf(madeFor, Number(row.dataset.start)), area.selectionStart);
  return rows().filter((row) => row.dataset.insert.startsWith(typed(row)));
}

const isFresh = () => company() !== null;
const isInWord = () => /\p{L}\w*$/u.test(area.value.slice(0, area.selectionStart));

function tab(way) {
  const count = rows().length;
  if (count === 1) take(rows()[0]);
  else choose((chosen + (way < 0 ? count - 1 : 1)) % count);
}

/** Gives the list a key of the entry; true where it took it. */
export function takesKey(event) {
  if (event.ctrlKey || event.altKey || event.metaKey) return false;
  if (event.key === "Tab" && !isFresh() && isInWord()) {
    const fitting = stillFitting();
    if (fitting.length === 1) take(fitting[0]);
    else wanted = true;
    return true;
  }
  if (!isOpen() || !isFresh()) return false;
  const count = rows().length;
  if (event.key === "Tab") {
    tab(event.shiftKey ? -1 : 1);
    return true;
  }
  if (chosen < 0) return event.key === "Escape" && close();
  if (event.key === "ArrowDown") choose((chosen + 1) % count);
  else if (event.key === "ArrowUp") choose((chosen + count - 1) % count);
  else if (event.key === "Enter") take(rows()[chosen]);
  else if (event.key === "Escape") close();
  else return false;
  return true;
}

list.addEventListener("mousedown", (event) => event.preventDefault());
list.addEventListener("click", (event) => {
  const row = event.target.closest("[role=option]");
  if (row) take(row);
});
area.addEventListener("blur", close);
area.addEventListener("input", () => { if (!area.value.trim()) show([]); });
document.getElementById("preview").addEventListener("htmx:afterSwap", () => {
  // an older reply leaves the list as it is: the next one is on its way
  if (isFresh()) show([...(document.getElementById("completions-made")?.content.children ?? [])]);
});
