/* A file that is dropped on the page is brought in. */
document.addEventListener("DOMContentLoaded", () => {
  for (const file of document.querySelectorAll(".bring-sheet input[type=file]")) {
    file.addEventListener("change", () => { if (file.files.length) file.form.requestSubmit(); });
  }
  document.addEventListener("click", (event) => {
    const mend = event.target.closest("#filter-said [data-mend]");
    if (!mend) return;
    const test = document.getElementById("test");
    test.value = mend.dataset.mend;
    test.focus();
    test.dispatchEvent(new Event("input", { bubbles: true }));
  });
  const form = document.getElementById("bring-in");
  if (!form) return;
  const field = form.querySelector("input[type=file]");
  const isTooLarge = (file) => {
    const said = form.querySelector(".too-large");
    said.hidden = file.size <= Number(form.dataset.most);
    return !said.hidden;
  };
  document.addEventListener("dragover", (event) => event.preventDefault());
  document.addEventListener("drop", (event) => {
    event.preventDefault();
    if (!event.dataTransfer.files.length || isTooLarge(event.dataTransfer.files[0])) return;
    field.files = event.dataTransfer.files;
    form.requestSubmit();
  });
  field.addEventListener("change", () => { if (field.files.length && !isTooLarge(field.files[0])) form.requestSubmit(); });
});
