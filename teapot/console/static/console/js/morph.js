/* An element made like a fresh one from the server. */
import { Idiomorph } from "../../teapot/dist/idiomorph.js";

const OPENED = ".in-place, .of-form, .workings, .chart-box, .run-head";
const isTyped = (node) => node.matches("input") && node.value !== node.defaultValue;

/** Leaves in place what the person has there: where the focus is, what is open, what is typed
    and not sent. */
export function morph(shown, fresh) {
  Idiomorph.morph(shown, fresh, {
    callbacks: {
      beforeAttributeUpdated: (name, node) => !(name === "open" || (name === "value" && isTyped(node))),
      beforeNodeRemoved: (node) => !node.matches?.(OPENED),
    },
  });
}
