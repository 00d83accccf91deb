/* What every page has.  A page with more imports this, then what is its own, and starts Alpine. */
import Alpine from "../dist/alpine.js";
import "../dist/htmx.js";
import "./dropped.js";
import "./kept.js";
import "./looks.js";
import "./menus.js";
import "./notes.js";
import "./switch.js";
import "./who.js";
import { copyText, csrfToken, openDialog } from "./dom.js";

// by this the server tells today() and now() as the clock here has them
document.cookie = `zone=${Intl.DateTimeFormat().resolvedOptions().timeZone};path=/;samesite=lax;max-age=31536000`;

document.addEventListener("htmx:configRequest", (event) => { event.detail.headers["X-CSRFToken"] = csrfToken(); });

document.addEventListener("click", (event) => {
  const opener = event.target.closest("[data-opens]");
  if (opener) openDialog(opener.dataset.opens);
  const copier = event.target.closest("[data-copies]");
  if (copier) copyText(copier.dataset.copies, "The link is copied.");
});

document.addEventListener("DOMContentLoaded", () => { // what was typed before all this was there
  for (const field of document.querySelectorAll("input[type=search]")) {
    if (field.value !== field.defaultValue) field.dispatchEvent(new Event("input", { bubbles: true }));
  }
});

// what takes longer than a moment shows that it is under way
const MOMENT = 300; // milliseconds
let underWay = 0, sign = 0;
const busy = (by) => {
  underWay = Math.max(0, underWay + by);
  const bar = document.getElementById("busy");
  if (!underWay) {
    clearTimeout(sign);
    sign = 0;
    if (!bar.hidden) bar.hidden = true;
  } else sign ||= setTimeout(() => { bar.hidden = false; }, MOMENT);
};
document.addEventListener("htmx:beforeSend", () => busy(1));
document.addEventListener("htmx:afterRequest", () => busy(-1));

export const start = () => Alpine.start();
