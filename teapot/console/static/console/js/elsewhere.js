/* Lines of the sheet that are named go with the forms that keep or save them elsewhere. */
import { element } from "../../teapot/js/dom.js";

/* The numbers of lines that are named, such as 3..8, 11, go with the form. */
function withNumbers(form, named) {
  for (const old of form.querySelectorAll("[name=numbers]")) old.remove();
  for (const part of named.split(/[,;]/)) {
    const [from, to] = part.split(/\.\.+|-|–|to/).map((text) => Number.parseInt(text, 10));
    if (!Number.isFinite(from)) continue;
    for (let number = from; number <= Math.min(to || from, from + 5000); number += 1) {
      form.append(element("input", { type: "hidden", name: "numbers", value: number }));
    }
  }
}
const elsewhere = document.getElementById("lines-elsewhere");
elsewhere.addEventListener("submit", () => withNumbers(elsewhere, elsewhere.elements.lines.value));
const out = document.getElementById("out");
out.addEventListener("submit", () => withNumbers(out, out.querySelector("[data-lines]").value));
