/* Up and Down walk through what was typed before, in any sheet; a search finds more. */
import Alpine from "../../teapot/dist/alpine.js";
import htmx from "../../teapot/dist/htmx.js";
import { chooser } from "../../teapot/js/dom.js";
import { area, write } from "./field.js";

let lines = [];
let walking = null; // { prefix, at, shown }: at counts from the newest line

fetch("/history").then((reply) => reply.json()).then((reply) => {
  lines = [...reply.lines, ...lines];
}).catch(() => { /* no connection: only what is typed from now on */ });

/** Takes a text up as what was typed last. */
export function typedNow(text) {
  lines = lines.filter((line) => line !== text);
  lines.push(text);
  walking = null;
}

/** Puts a text into the entry in the place of what is half typed there, which Up brings back. */
export function writeOver(text) {
  if (area.value.trim() && area.value !== text) typedNow(area.value);
  write(text);
  walking = { prefix: "", at: 0, shown: text, typed: text };
}

/** Puts the next line of the history that begins with what stands before the caret into the
    entry.  False where the caret can move between rows instead. */
export function walk(way) {
  const caret = area.selectionStart;
  const rows = area.value.slice(...(way < 0 ? [0, caret] : [caret]));
  if (walking?.shown !== area.value) {
    if (rows.includes("\n") || (way > 0 && !walking)) return false;
    walking = { prefix: area.value.slice(0, caret), at: 0, shown: area.value, typed: area.value };
  }
  const found = lines.filter((line) => line.startsWith(walking.prefix) && line !== walking.typed).reverse();
  const at = walking.at - way;
  if (at < 0 || at > found.length) return true;
  const text = at ? found[at - 1] : walking.typed;
  const { prefix, typed } = walking;
  write(text, prefix ? prefix.length : text.length);
  walking = { prefix, at, shown: text, typed };
  return true;
}

Alpine.data("history", () => ({
  init() { this.list = chooser(this.$refs.found); },

  shown() {
    this.$refs.words.select();
    htmx.trigger(this.$refs.words, "opened");
  },

  key(event) {
    if (event.key === "Enter" && event.target === this.$refs.words) this.use(this.list.chosen());
    else if (!this.list.takes(event.key)) return;
    event.preventDefault();
  },

  pointed(event) { this.use(event.target.closest("[role=option]")); },

  use(option) {
    if (!option) return;
    this.$root.close();
    writeOver(option.dataset.text);
  },

  left() { area.focus(); },
}));
