/* A file of data that is dropped on the sheet is looked at, and comes back as a line. */
document.addEventListener("DOMContentLoaded", () => {
  const form = document.getElementById("dropped");
  if (!form) return;
  const field = form.querySelector("input[type=file]");
  const holdsFiles = (event) => [...(event.dataTransfer?.types || [])].includes("Files");
  document.addEventListener("dragover", (event) => { if (holdsFiles(event)) event.preventDefault(); });
  document.addEventListener("drop", (event) => {
    if (!holdsFiles(event)) return;
    event.preventDefault();
    field.files = event.dataTransfer.files;
    form.requestSubmit();
  });
});
