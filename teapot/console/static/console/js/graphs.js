/* A line that draws has its graph below it as soon as it is on the page and near the window. */
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
