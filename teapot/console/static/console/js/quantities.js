/* The quantities beside the lines, and the marks of lines that are out of date. */
import { aloud, fragment } from "../../teapot/js/dom.js";
import { morph } from "./morph.js";
import { stayAtFoot } from "./scroll.js";
import { get } from "./server.js";

const side = document.getElementById("side");
const MOST_TOLD = 5; // quantities that moved
const AGAIN = 1000; // milliseconds before a list that could not be had is asked for again
let asked = 0;

/** Asks for the list anew. */
export async function showQuantities() {
  const ask = ++asked;
  const html = await get("/quantities");
  if (ask !== asked) return;
  if (html === null) {
    // a long sheet is read in parts: there is more when it is asked for again
    setTimeout(() => { if (ask === asked && navigator.onLine) showQuantities(); }, AGAIN);
    return;
  }
  morph(document.getElementById("quantities"), fragment(html).firstElementChild);
  showPicture();
  showFlags();
}

/** Takes up the quantities that came with a change: those that differ, with the order of all.
    Where they do not belong to what is shown, or did not come, the list is asked for. */
export function takeQuantities(made) {
  const here = document.getElementById("quantities");
  if (made && "whole" in made.dataset) {
    asked += 1;
    morph(here, made.content.firstElementChild);
    return showFlags();
  }
  if (!made || made.dataset.since !== here.dataset.revision) return showQuantities();
  asked += 1;
  here.dataset.revision = made.dataset.revision;
  changeItems(here, made);
  for (const group of here.querySelectorAll("[data-group]")) {
    const count = group.querySelectorAll(".quantity").length;
    group.querySelector("h2 span").textContent = count;
    group.querySelector(".none").hidden = count > 0;
    group.hidden = group.dataset.group === "functions" && !count;
  }
  const { outdated, leftOut } = made.dataset;
  here.querySelector(".outdated-all").hidden = outdated < 2;
  here.querySelector("[data-left-out]").hidden = leftOut === "0";
  here.querySelector("[data-left-out]").textContent = `${leftOut} more quantities are not listed here.`;
  showPicture();
  morph(here.querySelector("#flags"), made.content.getElementById("flags"));
  showFlags();
}

function changeItems(here, made) {
  const fresh = new Map([...made.content.querySelectorAll(".quantity")].map((one) => [one.dataset.name, one]));
  const known = new Map([...here.querySelectorAll(".quantity")].map((one) => [one.dataset.name, one]));
  const names = JSON.parse(made.dataset.names);
  const wanted = new Set(names);
  for (const [name, one] of known) if (!wanted.has(name)) one.remove();
  const moved = [];
  const last = {}; // the item that stands last so far in each group
  for (const name of names) {
    let one = known.get(name);
    const changed = fresh.get(name);
    if (changed && one) moved.push(...whatMoved(one, changed));
    if (changed && one && one.dataset.of === changed.dataset.of) morph(one, changed);
    else if (changed) {
      one?.remove();
      one = changed;
    }
    if (!one) return showQuantities();
    const list = here.querySelector(`[data-group=${one.dataset.of}] ul`);
    const before = last[one.dataset.of] || null;
    const place = before ? before.nextElementSibling : list.firstElementChild;
    if (place !== one) list.insertBefore(one, place);
    last[one.dataset.of] = one;
  }
  aloud(moved.slice(0, MOST_TOLD).join(". "), "aloud-moved");
}

/* What is told of a quantity that a change elsewhere has moved; what is given was told with its line. */
function whatMoved(one, { dataset: { name, of, text, state } }) {
  if (state === "out-of-date" && state !== one.dataset.state) return [`${name} is out of date`];
  return of === "found" && text !== one.dataset.text ? [`${name} is ${text}, was ${one.dataset.text}`] : [];
}

/* What depends on what is drawn when it is looked at. */
async function showPicture() {
  const box = side.querySelector("[data-dependence]");
  box.hidden = !side.querySelector("[data-group=found] .quantity");
  if (box.hidden || !box.open) return;
  const drawn = await get("/quantities/picture");
  if (drawn !== null) box.querySelector(".drawn").replaceChildren(fragment(drawn));
}
side.addEventListener("toggle", (event) => { if (event.target.matches("[data-dependence]")) showPicture(); }, true);

/** Marks the lines that are out of date. */
export const showFlags = () => stayAtFoot(() => {
  for (const flag of document.querySelectorAll("[data-flag]")) flag.replaceChildren();
  for (const flag of side.querySelectorAll("[data-flag-for]")) {
    document.querySelector(`#line-${flag.dataset.flagFor} [data-flag]`)?.append(flag.content.cloneNode(true));
  }
});

showQuantities();
