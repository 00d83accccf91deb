/* What is wider than its line is scrolled by keyboard too. */

const run = document.getElementById("run");
const widths = new ResizeObserver((entries) => {
  for (const { target } of entries) {
    if (target.scrollWidth > target.clientWidth) target.tabIndex = 0;
    else target.removeAttribute("tabindex");
  }
});
const watch = (node) => { for (const side of node.querySelectorAll?.(".side-of") ?? []) widths.observe(side); };

watch(run);
new MutationObserver((changes) => {
  for (const change of changes) change.addedNodes.forEach(watch);
}).observe(run, { childList: true, subtree: true });
