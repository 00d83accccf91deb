/* Cells of a table that are pasted into the entry are brought in as one, when the person says
   so; they come back as a line. */
import { element } from "../../teapot/js/dom.js";
import { area } from "./field.js";

const form = document.getElementById("cells");
const areCells = (text) => {
  const rows = text.split(/\r?\n/).filter((row) => row.trim());
  const widths = new Set(rows.map((row) => row.split("\t").length));
  return rows.length > 1 && widths.size === 1 && !widths.has(1);
};
area.addEventListener("input", () => {
  if (!area.value.includes("\t") || !areCells(area.value)) return;
  const use = element("button", { type: "button", className: "fix", textContent: "bring them in as a table" });
  use.dataset.testid = "bring-cells-in";
  use.addEventListener("click", () => {
    form.querySelector("[name=pasted]").value = area.value;
    form.requestSubmit();
  });
  document.getElementById("refusal").replaceChildren(
    element("p", { className: "notice", textContent: "These look like the cells of a table. " }, use));
});
