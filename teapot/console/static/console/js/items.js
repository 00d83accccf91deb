/* An item of a list tells its place, when it is pointed at or when one goes to it by keys: the
   grid is one stop, and the arrow keys go from item to item. */
import { element } from "../../teapot/js/dom.js";

const run = document.getElementById("run");
const sign = element("div", { className: "item-place", hidden: true });
sign.setAttribute("role", "status");
document.body.append(sign);
const itemsOf = (grid) => [...grid.querySelectorAll("mtd:not(.place)")];
const itemAt = (node) => node.closest?.("mtable.items mtd:not(.place)");

function tell(item) {
  const grid = item.closest("mtable");
  const box = item.getBoundingClientRect();
  sign.textContent = `item ${itemsOf(grid).indexOf(item) + 1}`;
  sign.hidden = false;
  sign.style.left = `${box.left}px`;
  sign.style.top = `${box.top - 22}px`;
}

run.addEventListener("pointerover", (event) => {
  const item = itemAt(event.target);
  if (item) tell(item); else sign.hidden = true;
});
run.addEventListener("pointerleave", () => { sign.hidden = true; });

run.addEventListener("focusin", (event) => {
  const item = itemAt(event.target);
  if (item) tell(item);
  const line = event.target.closest(".line");
  // the first item of each grid of the line at hand can be gone to
  for (const grid of line?.querySelectorAll("mtable.items") || []) {
    const items = itemsOf(grid);
    if (!items.some((one) => one.tabIndex === 0)) items[0]?.setAttribute("tabindex", "0");
  }
});
run.addEventListener("focusout", () => { sign.hidden = true; });

run.addEventListener("keydown", (event) => {
  const item = itemAt(event.target);
  if (!item) return;
  const grid = item.closest("mtable");
  const across = itemsOf(grid.querySelector("mtr")).length;
  const way = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: across, ArrowUp: -across }[event.key];
  const items = itemsOf(grid);
  const other = way && items[items.indexOf(item) + way];
  if (!way) return;
  event.preventDefault();
  event.stopPropagation();
  if (!other) return;
  item.setAttribute("tabindex", "-1");
  other.setAttribute("tabindex", "0");
  other.focus();
});
