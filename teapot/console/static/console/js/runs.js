/* The lines that came with a run of a procedure stand together, folded. */
import { element } from "../../teapot/js/dom.js";
import { run } from "./run.js";

const open = new Set();
function group() {
  const groups = new Map();
  for (const line of run.querySelectorAll(".line[data-run]")) {
    if (!groups.has(line.dataset.run)) groups.set(line.dataset.run, []);
    groups.get(line.dataset.run).push(line);
  }
  for (const [id, lines] of groups) {
    for (const old of run.querySelectorAll(`.run-head[data-of="${id}"]`)) if (old.parentElement !== lines[0]) old.remove();
    let head = lines[0].querySelector(":scope > .run-head");
    if (!head) {
      head = element("button", { type: "button", className: "run-head" });
      head.dataset.of = id;
      lines[0].prepend(head);
    }
    const isOpen = open.has(id);
    head.setAttribute("aria-expanded", String(isOpen));
    head.textContent = isOpen ? `${lines[0].dataset.runOf}: fold its ${lines.length} lines` : `${lines[0].dataset.runOf}: ${lines.length} lines were run, show them`;
    const says = (line) => line.querySelector("[data-kind=text], .error");
    const told = lines.filter((line) => says(line));
    const shown = new Set([lines[0], ...(told.length ? told : [lines.at(-1)])]);
    lines.forEach((line) => line.classList.toggle("is-folded", !isOpen && !shown.has(line)));
    lines[0].classList.toggle("is-head-only", !isOpen && lines.length > 1 && !says(lines[0]));
  }
}
run.addEventListener("click", (event) => {
  const head = event.target.closest(".run-head");
  if (!head) return;
  if (!open.delete(head.dataset.of)) open.add(head.dataset.of);
  group();
});
new MutationObserver((changes) => {
  if (changes.some((one) => [...one.addedNodes, ...one.removedNodes].some((node) => node.matches?.(".line")))) group();
}).observe(run, { childList: true });
group();
