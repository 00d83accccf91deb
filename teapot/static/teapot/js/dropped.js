/* A file that is dropped on a page is brought in, whatever it is. */
const form = document.getElementById("dropped");
const of = document.getElementById("bring-in") || form; // a page that asks for a file takes it
const holdsFiles = (event) => [...(event.dataTransfer?.types || [])].includes("Files");

document.addEventListener("dragover", (event) => { if (holdsFiles(event)) event.preventDefault(); });

document.addEventListener("drop", (event) => {
  if (!holdsFiles(event)) return;
  event.preventDefault();
  const field = of.querySelector("input[type=file]");
  field.files = event.dataTransfer.files;
  field.dispatchEvent(new Event("change", { bubbles: true }));
});

document.addEventListener("change", (event) => {
  const field = event.target;
  const sent = field.closest(".brings-in");
  if (!sent || !field.files?.length) return;
  const said = sent.querySelector(".too-large") || document.getElementById("too-large");
  said.textContent = `This file is too large: it has more than ${sent.dataset.most / 2 ** 20} megabytes.`;
  said.hidden = field.files[0].size <= Number(sent.dataset.most);
  if (said.hidden) sent.requestSubmit();
  else said.focus();
});
