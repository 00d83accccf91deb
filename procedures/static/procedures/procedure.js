/* The page of a procedure: its lines are read as they are typed, kept, asked for and run. */
document.addEventListener("DOMContentLoaded", () => {
  const area = document.getElementById("entry");
  const page = document.getElementById("procedure");
  if (!page) return;
  const preview = document.getElementById("preview");
  const writing = document.getElementById("writing");
  const draftKey = `teapot-procedure-${page.dataset.id}`;
  let kept = area.value;
  let waiting = 0;

  teapot.whereTyped = () => ({});
  teapot.isMending = () => false;
  teapot.write = (text, caret = text.length) => {
    area.value = text;
    area.setSelectionRange(caret, caret);
    area.dispatchEvent(new Event("input", { bubbles: true }));
    area.focus();
  };

  const fit = () => { area.rows = Math.min(30, Math.max(12, area.value.split("\n").length + 1)); };
  const readAgain = () => htmx.trigger("#readings", "read-again");

  area.addEventListener("input", () => {
    fit();
    try { localStorage.setItem(draftKey, area.value); } catch { /* private window */ }
    document.getElementById("backdrop").replaceChildren();
    htmx.trigger(area, "preview");
    clearTimeout(waiting);
    waiting = setTimeout(readAgain, 350);
  });
  preview.addEventListener("htmx:afterSwap", () => {
    const made = document.getElementById("completions-made");
    if (document.getElementById("company")?.dataset.for === area.value) {
      teapot.showCompletions(made ? [...made.content.children] : []);
    }
  });

  area.addEventListener("keydown", (event) => {
    if (event.isComposing) return;
    if (event.key === "Tab" && document.getElementById("completions").hidden) return; // to the next field
    if (teapot.completionKey(event)) return event.preventDefault();
    if (event.key === "Enter" && event.ctrlKey) {
      event.preventDefault();
      (document.querySelector("#asked [name=reply]") || document.querySelector("[data-testid=run]")).focus();
    } else if (event.key === "F1") {
      const before = /[\p{L}\w]*$/u.exec(area.value.slice(0, area.selectionStart))[0];
      const behind = /^[\p{L}\w]*/u.exec(area.value.slice(area.selectionStart))[0];
      window.open(`${page.dataset.handbook}?words=${encodeURIComponent(before + behind)}`);
      event.preventDefault();
    } else if (event.key === "ArrowUp" && event.altKey) {
      teapot.widen();
      event.preventDefault();
    } else if (event.key === "(" && teapot.wrap()) event.preventDefault();
  });
  document.addEventListener("keydown", (event) => {
    if (event.ctrlKey && event.key.toLowerCase() === "s") {
      event.preventDefault();
      writing.requestSubmit();
    }
  });

  function isKept() {
    kept = area.value;
    try { localStorage.removeItem(draftKey); } catch { /* private window */ }
  }
  document.getElementById("kept").addEventListener("htmx:afterSwap", isKept);
  window.addEventListener("beforeunload", (event) => { if (area.value !== kept) event.preventDefault(); });

  // -- running -------------------------------------------------------------------------

  const form = document.getElementById("run-form");
  const ran = document.getElementById("ran");
  const step = form.querySelector("[data-step]");
  const byStep = document.getElementById("by-step");

  teapot.oneAfterAnother(form);

  function showSteps(count) {
    const lines = [...ran.querySelectorAll(".output > li")];
    lines.forEach((line, at) => { line.hidden = at >= count; });
    step.hidden = count >= lines.length;
    step.dataset.shown = count;
  }
  step.addEventListener("click", () => showSteps(Number(step.dataset.shown) + 1));
  ran.addEventListener("htmx:afterSwap", () => {
    if (area.value !== kept) isKept();
    const wrong = ran.querySelector("[data-wrong]");
    step.hidden = true;
    for (const field of form.querySelectorAll("[name=reply]")) field.removeAttribute("aria-invalid");
    if (wrong) {
      const asked = [...form.querySelectorAll(".asks-for")].find((one) => one.querySelector("span").textContent === wrong.dataset.wrong);
      const field = asked?.querySelector("[name=reply]");
      field?.setAttribute("aria-invalid", "true");
      field?.focus();
      field?.select();
    } else if (byStep.checked) showSteps(1);
  });

  document.addEventListener("click", (event) => {
    if (!event.target.closest("[data-bring-back]")) return;
    teapot.write(document.querySelector("[data-testid=old-version]").textContent);
    writing.requestSubmit();
  });

  fit();
  try {
    const draft = localStorage.getItem(draftKey);
    if (draft !== null && draft !== area.value) {
      area.value = draft;
      fit();
      readAgain();
    }
  } catch { /* private window */ }
});
