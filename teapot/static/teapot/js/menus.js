/* Menus close with Escape, by a click outside, and by a choice; keys of every page open them. */
import { openDialog } from "./dom.js";

const OPEN = "details:is(.menu, .more)[open]";

function close(menu, focuses) {
  menu.open = false;
  if (focuses) menu.querySelector("summary").focus();
}

document.addEventListener("click", (event) => {
  for (const menu of document.querySelectorAll(OPEN)) {
    const isInside = menu.contains(event.target);
    if (!isInside || event.target.closest("a, button, input[type=file]")) close(menu, false);
  }
});

document.addEventListener("keydown", (event) => {
  const menu = document.activeElement.closest(OPEN) ?? document.querySelector(OPEN);
  if (!menu) return;
  if (event.key === "Escape") {
    close(menu, true);
    event.preventDefault();
    event.stopPropagation();
    return;
  }
  const way = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (!way || !menu.contains(event.target) || event.target.matches("input, select, textarea")) return;
  const items = [...menu.querySelectorAll("summary, summary ~ * :is(a, button, input, select)")]
    .filter((item) => item.offsetParent !== null);
  const at = items.indexOf(document.activeElement);
  items[(at + way + items.length) % items.length].focus();
  event.preventDefault();
}, true);

function openMenu() {
  const menu = document.querySelector(".page-head .menu[data-testid=menu]") ?? document.querySelector(".page-head .menu");
  menu.open = true;
  menu.querySelector("summary").focus();
}

const KEYS = {
  ".": openMenu,
  ",": () => document.querySelector(".page-head .title input")?.select(),
  ";": () => openDialog("switch-dialog"),
  "/": () => openDialog("keys-dialog"),
  s: () => openDialog("out-dialog"),
};

document.addEventListener("keydown", (event) => {
  if (!(event.ctrlKey || event.metaKey) || event.altKey || event.defaultPrevented) return;
  const act = KEYS[event.key.toLowerCase()];
  if (!act || document.querySelector("dialog[open]")) return;
  if (event.key.toLowerCase() === "s" && !document.getElementById("out-dialog")) return;
  event.preventDefault();
  act();
});

document.addEventListener("click", (event) => {
  if (!event.target.closest("[data-to-menu]")) return;
  event.preventDefault();
  document.querySelector("#sheet-menu summary").focus();
});
