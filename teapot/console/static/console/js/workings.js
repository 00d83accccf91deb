/* What can be opened below a line: its workings, and charts of its values. */
import { fragment, say } from "../../teapot/js/dom.js";
import { stayAtFoot } from "./scroll.js";
import { get, page } from "./server.js";

/** Opens the workings of a line, or closes them. */
export async function toggleWorkings(line) {
  const button = line.querySelector("[data-act=workings]");
  const open = line.querySelector(".workings");
  if (!button) return;
  if (open) {
    button.setAttribute("aria-expanded", "false");
    return open.remove();
  }
  await showWorkings(line);
  line.scrollIntoView({ block: "nearest" });
}

/** The workings of a line are made anew where they are open: its values may have moved. */
export function refreshWorkings(line) {
  if (!line.querySelector(".workings")) return;
  if (line.querySelector("[data-act=workings]")) showWorkings(line);
  else line.querySelector(".workings").remove();
}

/** The graph of a line stands below it from the start; it is drawn anew where its values moved. */
export function showGraph(line) {
  const button = line.querySelector("[data-picture=graph]");
  const open = line.querySelector("[data-chart=graph]");
  if (!button) return open?.remove();
  open?.remove();
  toggleChart(line, "graph", button, { quiet: true, range: open?.dataset.range });
}

async function showWorkings(line) {
  const html = await get(`/lines/${line.dataset.number}/workings`);
  if (html === null) return say("The workings could not be loaded.");
  line.querySelector(".workings")?.remove();
  line.append(fragment(html));
  line.querySelector("[data-act=workings]")?.setAttribute("aria-expanded", "true");
}

/** Opens a chart of a line below it, or closes it. */
export async function toggleChart(line, name, button, { quiet = false, range = "" } = {}) {
  const open = line.querySelector(`[data-chart=${name}]`);
  button.setAttribute("aria-expanded", String(!open));
  if (open) return open.remove();
  const reply = await fetch(`${page().url}/lines/${line.dataset.number}/pictures/${name}?${range}`).catch(() => null);
  if (!reply?.ok) return say(reply?.status === 404 ? "There is nothing to draw: the values are all alike, or too far apart." : `The ${name} could not be loaded.`);
  const html = await reply.text();
  if (line.querySelector(`[data-chart=${name}]`)) return;
  stayAtFoot(() => line.append(fragment(html)));
  line.querySelector(`[data-chart=${name}]`).dataset.range = range;
  if (!quiet) line.querySelector(`[data-chart=${name}]`).scrollIntoView({ block: "nearest" });
}
