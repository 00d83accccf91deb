/* A picture that is opened by itself, and moved: what it shows is worked out by the server,
   of a line or of where it was moved to. */
import { say } from "../../teapot/js/dom.js";
import { insert } from "./field.js";
import { page } from "./server.js";

/** The picture ``name`` in its dialog; ``shown`` is told of each state of it. */
export function movable(name, shown) {
  const dialog = document.getElementById(`${name}-dialog`);
  const face = document.getElementById(`${name}-face`);
  const readout = document.getElementById(`${name}-readout`);
  let wanted = null; // what is asked for next, while a reply is on its way
  let busy = false;

  async function ask(query) {
    if (busy) { wanted = query; return; }
    busy = true;
    const { line, ...where } = query;
    const address = line ? `lines/${line}/pictures/${name}` : `${name}?${new URLSearchParams(where)}`;
    const reply = await fetch(`${page().url}/${address}`).catch(() => null);
    if (reply?.ok) show(await reply.text());
    else if (reply?.status === 404) say("It is too large to draw.");
    else say(`The ${name} cannot be reached at the moment.`);
    busy = false;
    if (wanted) { const next = wanted; wanted = null; ask(next); }
  }

  function show(html) {
    readout.innerHTML = html;
    const made = readout.querySelector("template");
    face.replaceChildren(...made.content.firstElementChild.children);
    shown(made.dataset, readout);
  }

  function open(query) {
    if (!dialog.open) dialog.showModal();
    ask(query);
    face.focus();
  }

  /** Puts what it shows into the entry. */
  function use() {
    const text = readout.querySelector("[data-use]")?.dataset.use;
    if (!text) return;
    dialog.close();
    insert(text);
  }

  /** Where a pointer is, in the picture's own coordinates from its centre, up being more. */
  function pointed(event) {
    const box = face.getBoundingClientRect();
    const size = face.viewBox.baseVal.width;
    const scale = box.width / size;
    return [(event.clientX - box.left) / scale - size / 2, size / 2 - (event.clientY - box.top) / scale];
  }

  readout.addEventListener("click", (event) => { if (event.target.closest("[data-use]")) use(); });
  document.addEventListener("click", (event) => {
    const opener = event.target.closest(`[data-picture=${name}]`);
    if (opener) open({ line: opener.dataset.of });
  });
  return { face, readout, ask, open, use, pointed };
}
