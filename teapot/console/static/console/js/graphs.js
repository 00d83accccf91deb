/* A line that draws has its graph below it as soon as it is on the page and near the window. */
import { element } from "../../teapot/js/dom.js";
import { boxOf, move, readingsOf, shareAt } from "./graph_range.js";
import { showGraph } from "./workings.js";

const run = document.getElementById("run");
const drawing = (node) => node.matches?.(".line") && node.querySelector("[data-picture=graph]");
const sight = new IntersectionObserver((entries) => {
  for (const { target, isIntersecting } of entries) {
    if (!isIntersecting) continue;
    sight.unobserve(target);
    showGraph(target);
  }
}, { root: document.getElementById("scroll"), rootMargin: "400px" });

const watch = (node) => { if (drawing(node)) sight.observe(node); };
run.querySelectorAll(".line").forEach(watch);
new MutationObserver((changes) => {
  for (const change of changes) change.addedNodes.forEach(watch);
}).observe(run, { childList: true });

/* The pointer, and the arrow keys, read off between which values each curve lies. */
const short = (number) => Number(number.toPrecision(4)).toString().replace("-", "−");

function readAt(box, share) {
  const group = box.querySelector("[data-readings]");
  const { across, up, left, right, from, to, curves } = readingsOf(box);
  const at = Math.max(0, Math.min(1, share));
  box.dataset.at = at;
  const line = group.querySelector(".reader");
  for (const name of ["x1", "x2"]) line.setAttribute(name, from + at * (to - from));
  group.classList.add("is-read");
  const said = curves.map(({ typed, columns }) => {
    const column = columns[Math.min(columns.length - 1, Math.floor(at * columns.length))];
    const between = column && (short(column[0]) === short(column[1]) ? short(column[0]) : `between ${short(column[0])} and ${short(column[1])}`);
    return `${curves.length > 1 ? `${typed}: ` : ""}${between ?? "no value"}${between && up ? ` ${up}` : ""}`;
  });
  let text = box.querySelector(".read-off");
  if (!text) box.append(text = element("p", { className: "read-off" }));
  text.setAttribute("role", "status");
  text.textContent = `${across.replace(/ \[.*/, "")} ≈ ${short(left + at * (right - left))}${across.includes("[") ? ` ${/\[(.*)\]/.exec(across)[1]}` : ""} · ${said.join(" · ")}`;
}

run.addEventListener("pointermove", (event) => {
  const svg = boxOf(event) && event.target.closest("svg");
  if (!svg) return;
  readAt(boxOf(event), shareAt(svg, readingsOf(boxOf(event)), event.clientX));
});
run.addEventListener("keydown", (event) => {
  const box = boxOf(event);
  const way = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  if (!box || event.target !== box || !way || event.altKey || event.ctrlKey) return;
  event.preventDefault();
  const share = Number(box.dataset.at ?? 0.5) + (way * (event.shiftKey ? 20 : 1)) / 390;
  if (share < 0 || share > 1) return move(box, { aside: way / 4 }); // on, beyond the end
  readAt(box, share);
});
