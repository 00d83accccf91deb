/* What is half typed in a window is its own: it survives a reload, and a window that is opened
   anew takes up what one that was closed left behind. */
import { store, stored } from "../../teapot/js/dom.js";

const LOCK = "teapot-window-";

/** The draft of this window for a sheet: its name, what it has, and a way to add to that. */
export function draftOf(sheet) {
  const prefix = `teapot-draft-${sheet}-`;
  const name = nameOfWindow(prefix);
  const read = () => {
    try { return JSON.parse(stored(prefix + name)) || {}; } catch { return {}; }
  };
  const write = (fields) => store(prefix + name, JSON.stringify({ ...read(), ...fields }));
  addEventListener("pagehide", () => write({ closed: Date.now() }));
  addEventListener("pageshow", () => write({ closed: null }));
  navigator.locks?.request(LOCK + name, () => new Promise(() => {})); // while it is open
  return { name, read, write };
}

function nameOfWindow(prefix) {
  try {
    const known = sessionStorage.getItem(`${prefix}window`);
    const name = known || Math.random().toString(36).slice(2);
    sessionStorage.setItem(`${prefix}window`, name);
    if (!known) takeUp(prefix, name);
    return name;
  } catch { return "here"; }
}

/* One that was closed has told the time at which that was. */
function takeUp(prefix, name) {
  for (const key of Object.keys(localStorage).filter((one) => one.startsWith(prefix))) {
    const left = JSON.parse(localStorage.getItem(key));
    if (!left.closed) continue;
    localStorage.removeItem(key);
    if (!left.text && !left.aside?.length) continue;
    store(prefix + name, JSON.stringify({ ...left, closed: null }));
    return;
  }
}

/** The names of the windows that are open, as far as the browser can tell: else none. */
export async function windowsOpen() {
  const { held } = navigator.locks ? await navigator.locks.query() : { held: [] };
  return new Set(held.map((lock) => lock.name.replace(LOCK, "")));
}
