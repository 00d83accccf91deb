/* Procedures beside a sheet: one is asked for its values and run into the sheet; lines of the
   sheet are kept as one; what came with a run stands together, folded. */
document.addEventListener("DOMContentLoaded", () => {
  const run = document.getElementById("run");
  const dialog = document.getElementById("run-dialog");
  if (!run || !dialog) return;
  const asks = document.getElementById("run-asks");

  teapot.askToRun = async (name) => {
    const reply = await fetch(`${dialog.dataset.questions}?name=${encodeURIComponent(name)}`).catch(() => null);
    if (!reply?.ok) return teapot.say("The procedure could not be had.");
    asks.replaceChildren(teapot.fragment(await reply.text()));
    dialog.showModal();
    (asks.querySelector("[name=reply]") || asks.querySelector("button"))?.focus();
    asks.querySelector("[name=reply]")?.select();
  };

  teapot.oneAfterAnother(asks);

  asks.addEventListener("submit", async (event) => {
    event.preventDefault();
    const form = event.target;
    form.dataset.token ||= crypto.randomUUID();
    const fields = new FormData(form);
    const reply = await teapot.post("/run", {
      procedure: form.dataset.procedure, token: form.dataset.token, since: run.dataset.revision,
      key: fields.getAll("key"), reply: fields.getAll("reply"),
    });
    const said = form.querySelector(".error");
    if (!reply) { said.textContent = "There is no connection: nothing was run."; return; }
    const html = await reply.text();
    if (!reply.ok || reply.headers.has("X-Refused")) {
      said.textContent = reply.ok ? teapot.fragment(html).textContent.trim() : html;
      form.dataset.token = crypto.randomUUID();
      return;
    }
    dialog.close();
    teapot.takeNews(html, reply.headers, false);
  });
  asks.addEventListener("click", (event) => { if (event.target.closest("[data-mend]")) dialog.close(); });

  // -- runs, folded -----------------------------------------------------------------

  const open = new Set();
  teapot.groupRuns = () => {
    const groups = new Map();
    for (const line of run.querySelectorAll(".line[data-run]")) {
      if (!groups.has(line.dataset.run)) groups.set(line.dataset.run, []);
      groups.get(line.dataset.run).push(line);
    }
    for (const [id, lines] of groups) {
      for (const old of run.querySelectorAll(`.run-head[data-of="${id}"]`)) if (old.parentElement !== lines[0]) old.remove();
      let head = lines[0].querySelector(":scope > .run-head");
      if (!head) {
        head = teapot.element("button", { type: "button", className: "run-head" });
        head.dataset.of = id;
        lines[0].prepend(head);
      }
      const isOpen = open.has(id);
      head.setAttribute("aria-expanded", String(isOpen));
      head.textContent = isOpen ? `${lines[0].dataset.runOf}: fold its ${lines.length} lines` : `${lines[0].dataset.runOf}: ${lines.length} lines were run, show them`;
      const says = (line) => line.querySelector("[data-kind=text], .error");
      const told = lines.filter((line) => says(line));
      const shown = new Set([lines[0], ...(told.length ? told : [lines.at(-1)])]);
      lines.forEach((line) => line.classList.toggle("is-folded", !isOpen && !shown.has(line)));
      lines[0].classList.toggle("is-head-only", !isOpen && lines.length > 1 && !says(lines[0]));
    }
  };
  run.addEventListener("click", (event) => {
    const head = event.target.closest(".run-head");
    if (!head) return;
    if (!open.delete(head.dataset.of)) open.add(head.dataset.of);
    teapot.groupRuns();
  });
  new MutationObserver((changes) => {
    if (changes.some((one) => [...one.addedNodes, ...one.removedNodes].some((node) => node.matches?.(".line")))) teapot.groupRuns();
  }).observe(run, { childList: true });
  teapot.groupRuns();

  // -- lines of the sheet, kept elsewhere -------------------------------------------------

  /* The numbers of lines that are named, such as 3..8, 11, go with the form. */
  function withNumbers(form, named) {
    for (const old of form.querySelectorAll("[name=numbers]")) old.remove();
    for (const part of named.split(/[,;]/)) {
      const [from, to] = part.split(/\.\.+|-|–|to/).map((text) => Number.parseInt(text, 10));
      if (!Number.isFinite(from)) continue;
      for (let number = from; number <= Math.min(to || from, from + 5000); number += 1) {
        form.append(teapot.element("input", { type: "hidden", name: "numbers", value: number }));
      }
    }
  }
  const elsewhere = document.getElementById("lines-elsewhere");
  elsewhere.addEventListener("submit", () => withNumbers(elsewhere, elsewhere.elements.lines.value));
  const out = document.getElementById("out");
  out.addEventListener("submit", () => withNumbers(out, out.querySelector("[data-lines]").value));
});
