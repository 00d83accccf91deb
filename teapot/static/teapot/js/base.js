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

const chosenAtFirst = (list) => [...list.options].find((one) => one.defaultSelected) ?? list.options[0];

document.addEventListener("DOMContentLoaded", () => { // what was typed or chosen before all this was there
  const tell = (field, kind) => field.dispatchEvent(new Event(kind, { bubbles: true }));
  for (const field of document.querySelectorAll("input[type=search]")) {
    if (field.value !== field.defaultValue) tell(field, "input");
  }
  for (const list of document.querySelectorAll("[hx-trigger*=change] select")) {
    if (!list.multiple && list.selectedOptions[0] !== chosenAtFirst(list)) tell(list, "change");
  }
});

export const start = () => Alpine.start();
