/* A file of data that is dropped on the sheet is looked at, and comes back as a line; so are
   cells of a table that are pasted into the entry, when the person says so. */
document.addEventListener("DOMContentLoaded", () => {
  const form = document.getElementById("dropped");
  if (!form) return;
  const field = form.querySelector("input[type=file]");
  const holdsFiles = (event) => [...(event.dataTransfer?.types || [])].includes("Files");
  document.addEventListener("dragover", (event) => { if (holdsFiles(event)) event.preventDefault(); });
  document.addEventListener("drop", (event) => {
    if (!holdsFiles(event)) return;
    event.preventDefault();
    if (event.dataTransfer.files[0]?.size > Number(form.dataset.most)) return teapot.say("This file cannot be read: it has more than 50 megabytes.");
    field.files = event.dataTransfer.files;
    form.requestSubmit();
  });

  const area = document.getElementById("entry");
  const areCells = (text) => {
    const rows = text.split(/\r?\n/).filter((row) => row.trim());
    const widths = new Set(rows.map((row) => row.split("\t").length));
    return rows.length > 1 && widths.size === 1 && !widths.has(1);
  };
  area.addEventListener("input", () => {
    if (!area.value.includes("\t") || !areCells(area.value)) return;
    const use = teapot.element("button", { type: "button", className: "mend", textContent: "bring them in as a table" });
    use.dataset.testid = "bring-cells-in";
    use.addEventListener("click", () => {
      field.disabled = true; // what is sent is what was pasted
      form.querySelector("[name=pasted]").value = area.value;
      form.requestSubmit();
    });
    document.getElementById("refusal").replaceChildren(
      teapot.element("p", { className: "notice", textContent: "These look like the cells of a table. " }, use));
  });
});
