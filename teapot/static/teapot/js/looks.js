/* What the menus of the head offer that change the looks of all pages. */
import Alpine from "../dist/alpine.js";
import { store } from "./dom.js";

const root = document.documentElement;

/* A key that turns ``name`` of the page from one of two values to the other; it is labelled with
   what it turns to. */
function turning(name, values, labels) {
  return () => ({
    now: root.dataset[name],
    get label() { return labels[this.now]; },
    toggle() {
      this.now = values.find((value) => value !== this.now);
      root.dataset[name] = this.now;
      store(`teapot-${name}`, this.now);
    },
  });
}

Alpine.data("theme", turning("theme", ["light", "night"], { light: "Night theme", night: "Light theme" }));
Alpine.data("room", turning("room", ["compact", "roomy"], { compact: "Line spacing: roomy", roomy: "Line spacing: compact" }));
