/* Small things that the scripts of several pages share. */

/** A fragment of HTML from the server as elements. */
export function fragment(html) {
  const holder = document.createElement("template");
  holder.innerHTML = html;
  return holder.content;
}

/** An element with its fields and children. */
export function element(tag, fields, ...children) {
  const made = Object.assign(document.createElement(tag), fields);
  made.append(...children);
  return made;
}

let saying = 0;

/** Says something for a moment at the edge of the page. */
export function say(text) {
  const said = document.getElementById("said");
  said.textContent = text;
  clearTimeout(saying);
  saying = setTimeout(() => { said.textContent = ""; }, 4000);
}

/** Tells something to those who listen to the page: of a line, or of what a change has moved. */
export function aloud(text, of = "aloud") {
  document.getElementById(of).textContent = text;
}

/** Copies a text, and says that it is. */
export async function copyText(text, said) {
  try {
    await navigator.clipboard.writeText(text);
    say(said);
  } catch { // no leave of the browser, or no secure connection
    say("This browser does not let the page copy: select the text and copy it.");
  }
}

/** The token that a request which changes something is sent with, as the cookie has it. */
export const csrfToken = () => /(?:^|; )csrftoken=([^;]*)/.exec(document.cookie)?.[1] ?? "";

/** What is kept in the browser under ``name``; null where there is nothing, or no place. */
export function stored(name) {
  try { return localStorage.getItem(name); } catch { return null; }
}

let isOver = false;

/** Nothing is kept in the browser any more: the page is on its way out. */
export function storeNothing() { isOver = true; }

/** Keeps a text in the browser, null forgets it; a private or a full one keeps nothing. */
export function store(name, text) {
  if (isOver) return;
  try {
    if (text === null) localStorage.removeItem(name);
    else localStorage.setItem(name, text);
  } catch { /* private or full */ }
}

/** Places in a text: the engine counts code points, the browser UTF-16 units. */
export const unitsOf = (text, points) => Array.from(text).slice(0, points).join("").length;
export const pointsOf = (text, units) => Array.from(text.slice(0, units)).length;

/** Whether a key puts a sign into a text: also by AltGr, or by Option on a Mac. */
export const types = (event) => [...event.key].length === 1 && !event.metaKey
  && (event.getModifierState("AltGraph") || event.ctrlKey === event.altKey || (event.altKey && event.key > "~"));

/** Opens a dialog, which is told so by the event "shown". */
export function openDialog(name) {
  const dialog = document.getElementById(name);
  if (dialog.open) return;
  dialog.showModal();
  dialog.dispatchEvent(new Event("shown"));
}

/** The options of a list box that can be chosen from the keyboard, which a field may tell of. */
export function chooser(list, field = null) {
  const options = () => [...list.querySelectorAll("[role=option]")];
  const at = () => options().findIndex((option) => option.getAttribute("aria-selected") === "true");
  function choose(place) {
    options().forEach((option, other) => option.setAttribute("aria-selected", String(other === place)));
    options()[place]?.scrollIntoView({ block: "nearest" });
    field?.setAttribute("aria-activedescendant", options()[place]?.id ?? "");
  }
  return {
    choose,
    chosen: () => options()[Math.max(at(), 0)],
    /** One up or down; true where the key did that. */
    takes(key) {
      const way = { ArrowDown: 1, ArrowUp: -1 }[key];
      if (way) choose(Math.max(0, Math.min(options().length - 1, at() + way)));
      return Boolean(way);
    },
  };
}
