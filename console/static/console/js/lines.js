/* What can be done with a line: mended in place, moved, deleted, shown in another
   form, opened into its workings; by mouse and by keyboard. */
document.addEventListener("DOMContentLoaded", () => {
  const run = document.getElementById("run");
  if (!run) return;
  const area = document.getElementById("entry");
  const numberOf = (line) => line.dataset.number;
  const answersOf = (line) => [...line.querySelectorAll("[data-testid=answer]")];

  /** To the last line, from the entry. */
  teapot.toLines = () => run.querySelector(":scope > .line:last-of-type")?.focus();

  const acts = {
    again: (line) => teapot.write(line.dataset.input),
    async copy(line) {
      const texts = await Promise.all(answersOf(line).map(wholeText)).catch(() => null);
      if (!texts) return teapot.say("The whole answer could not be had.");
      await navigator.clipboard.writeText(texts.join("; "));
      teapot.say("The answer is copied.");
    },
    async latex(line) {
      const reply = await fetch(`${teapot.page().url}/lines/${numberOf(line)}/latex`).catch(() => null);
      if (!reply?.ok) return teapot.say("The LaTeX could not be had.");
      await navigator.clipboard.writeText(await reply.text());
      teapot.say("The line is copied as LaTeX.");
    },
    mend: (line) => edit(line, line.dataset.input, (text, reply) => change(line, "", { text, reply })),
    below: (line) => edit(line, "", (text, reply) => insert(line, text, reply), true),
    up: (line) => change(line, "/move", { way: "up" }),
    down: (line) => change(line, "/move", { way: "down" }),
    async delete(line) {
      const next = line.nextElementSibling || line.previousElementSibling;
      if ((await change(line, "/delete")) === null) return;
      teapot.say(`Line ${numberOf(line)} is deleted. Undo brings it back.`);
      if (next?.matches(".line")) next.focus(); else area.focus();
    },
    workings,
    form: (line) => edit(line, formOf(line), (text) => change(line, "/form", { form: text }), true, "forms"),
  };

  /* The text of an answer; of a long one the page has the head only. */
  async function wholeText(answer) {
    if (!answer.dataset.rest) return answer.dataset.text;
    const reply = await fetch(answer.dataset.rest);
    if (!reply.ok) throw new Error(String(reply.status));
    return reply.text();
  }

  function formOf(line) {
    return line.querySelector(".form-shown")?.textContent || "";
  }

  /* Sends a change of a line; null where it was made, else what was said against it, or
     the question that is to be replied to first. */
  async function change(line, path, fields) {
    const reply = await teapot.post(`/lines/${numberOf(line)}${path}`, fields);
    return settle(reply);
  }

  async function insert(line, text, reply) {
    const fields = { text, reply, token: teapot.newToken(), below: numberOf(line) };
    return settle(await teapot.post("/lines", fields));
  }

  async function settle(reply) {
    if (reply?.headers.has("X-Refused")) {
      return teapot.fragment(await reply.text()).querySelector(".asks, .error");
    }
    if (await teapot.take(reply)) return null;
    return teapot.element("p", { className: "error", textContent: "Nothing was changed." });
  }

  /* A field in the line's own place; Enter does, Escape leaves everything as it was. */
  function edit(line, text, done, below = false, list = "") {
    run.querySelector(".in-place")?.remove();
    const field = teapot.element("input", { value: text, spellcheck: false, autocomplete: "off" });
    field.setAttribute("aria-label", below ? (list ? "Form of this line, such as fraction or 4 digits" : "New line below") : "The line's text");
    if (list) field.setAttribute("list", list);
    const box = teapot.element("div", { className: "in-place", id: "in-place" }, field);
    box.dataset.testid = "in-place";
    if (below) line.append(box); else line.querySelector(".typed").after(box);
    field.focus();
    field.setSelectionRange(text.length, text.length);
    const close = () => box.remove();
    field.addEventListener("keydown", async (event) => {
      event.stopPropagation();
      if (event.key === "Escape") { close(); line.focus(); }
      if (event.key !== "Enter") return;
      event.preventDefault();
      if (field.value.trim() || list) attempt([]);
    });

    async function attempt(replies) {
      const number = numberOf(line);
      const said = await done(field.value, replies);
      if (!said) {
        close();
        document.getElementById(`line-${number}`)?.focus();
        return;
      }
      box.querySelector(".asks, .error")?.remove();
      box.append(said);
      if (said.matches(".asks")) {
        const taken = replies.slice(0, Number(said.dataset.taken));
        const leave = () => { said.remove(); field.focus(); };
        return teapot.askIn(box, (reply) => attempt([...taken, reply]), leave);
      }
      said.querySelectorAll("[data-mend]").forEach((mend) => mend.addEventListener("click", (click) => {
        click.stopPropagation();
        field.value = mend.dataset.mend;
        field.focus();
      }));
    }
  }

  async function workings(line) {
    const button = line.querySelector("[data-act=workings]");
    const open = line.querySelector(".workings");
    if (!button) return;
    if (open) {
      button.setAttribute("aria-expanded", "false");
      return open.remove();
    }
    await showWorkings(line);
    line.scrollIntoView({ block: "nearest" });
  }

  /** The workings of a line, where they are open: its values may have moved. */
  teapot.refreshWorkings = (line) => {
    if (!line.querySelector(".workings")) return;
    if (line.querySelector("[data-act=workings]")) showWorkings(line);
    else line.querySelector(".workings").remove();
  };

  async function showWorkings(line) {
    const reply = await fetch(`${teapot.page().url}/lines/${numberOf(line)}/workings`).catch(() => null);
    if (!reply?.ok) return teapot.say("The workings could not be had.");
    line.querySelector(".workings")?.remove();
    line.append(teapot.fragment(await reply.text()));
    line.querySelector("[data-act=workings]")?.setAttribute("aria-expanded", "true");
  }

  async function copyTable(address) {
    const reply = await fetch(address).catch(() => null);
    if (!reply?.ok) return teapot.say("The table could not be copied.");
    await navigator.clipboard.writeText(await reply.text());
    teapot.say("The table is copied as CSV.");
  }

  run.addEventListener("click", (event) => {
    const csv = event.target.closest("[data-csv]");
    if (csv) copyTable(csv.nextElementSibling.href);
    const line = event.target.closest(".line");
    const button = event.target.closest("[data-act]");
    if (line && button) {
      event.target.closest("details")?.removeAttribute("open");
      acts[button.dataset.act](line);
    }
    const mend = event.target.closest("[data-mend]");
    if (line && mend && !mend.closest(".in-place")) change(line, "", { text: mend.dataset.mend });
  });

  run.addEventListener("dblclick", (event) => {
    const line = event.target.closest(".line");
    if (line && !event.target.closest("input, button, .workings")) acts.again(line);
  });

  // -- keys on a line -----------------------------------------------------------

  const KEYS = { m: "mend", w: "workings", f: "form", c: "copy", b: "below", Enter: "again", Delete: "delete" };

  run.addEventListener("keydown", async (event) => {
    const line = event.target;
    if (!line.matches?.(".line") || event.ctrlKey || event.metaKey) return;
    const number = numberOf(line);
    if (event.key === "ArrowUp" || event.key === "ArrowDown") {
      event.preventDefault();
      const up = event.key === "ArrowUp";
      if (event.altKey) {
        await acts[up ? "up" : "down"](line);
        return document.getElementById(`line-${number}`)?.focus();
      }
      const other = up ? line.previousElementSibling : line.nextElementSibling;
      if (other?.matches(".line")) other.focus(); else if (!up) area.focus();
      return;
    }
    const act = KEYS[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (event.key === "Escape" || event.key === "PageDown") area.focus();
    else if (act && !event.altKey) acts[act](line);
    else return;
    event.preventDefault();
  });
});
