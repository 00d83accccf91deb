/* The quick switch: a part of a name, from any page, goes to what is called so. */
import Alpine from "../dist/alpine.js";
import { chooser } from "./dom.js";

const MOST = 12; // names that are shown

Alpine.data("switch", () => ({
  words: "",
  things: [],

  get found() {
    const parts = this.words.toLowerCase().split(/\s+/).filter(Boolean);
    const has = (thing) => parts.every((part) => `${thing.name} ${thing.folder}`.toLowerCase().includes(part));
    const begins = (thing) => Number(!thing.name.toLowerCase().startsWith(parts[0] ?? ""));
    return this.things.filter(has).sort((a, b) => begins(a) - begins(b)).slice(0, MOST);
  },

  init() {
    this.list = chooser(this.$refs.found, this.$refs.words);
    this.$watch("found", () => this.$nextTick(() => this.list.choose(0)));
  },

  async shown() {
    this.words = "";
    const reply = await fetch(this.$root.dataset.names).catch(() => null);
    this.things = reply?.ok ? (await reply.json()).things : [];
  },

  idOf: (at) => `switch-${at}`,

  key(event) {
    if (event.key === "Enter") this.go(this.list.chosen());
    else if (!this.list.takes(event.key)) return;
    event.preventDefault();
  },

  pointed(event) { this.go(event.target.closest("[role=option]")); },

  go(option) { if (option) location.assign(option.dataset.address); },
}));
