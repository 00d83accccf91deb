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
    async mathml(line) {
      const said = [...line.querySelectorAll(".equation")].map((one) => {
        const inside = [...one.querySelectorAll("math")].map((math) => math.innerHTML).join("");
        return `<math xmlns="http://www.w3.org/1998/Math/MathML" display="block"><mrow>${inside}</mrow></math>`;
      });
      await navigator.clipboard.writeText(said.join("\n"));
      teapot.say("The line is copied as MathML.");
    },
    async latex(line) {
      const reply = await fetch(`${teapot.page().url}/lines/${numberOf(line)}/latex`).catch(() => null);
      if (!reply?.ok) return teapot.say("The LaTeX could not be had.");
      await navigator.clipboard.writeText(await reply.text());
      teapot.say("The line is copied as LaTeX.");
    },
    mend: (line) => teapot.mendAt(line, line.dataset.input, (text, reply) => change(line, "", { text, reply })),
    below: (line) => teapot.mendAt(line, "", (text, reply) => insert(line, text, reply), true),
    up: (line) => change(line, "/move", { way: "up" }),
    down: (line) => change(line, "/move", { way: "down" }),
    async delete(line) {
      const next = line.nextElementSibling || line.previousElementSibling;
      if ((await change(line, "/delete")) === null) return;
      teapot.say(`Line ${numberOf(line)} is deleted. Undo brings it back.`);
      if (next?.matches(".line")) next.focus(); else area.focus();
    },
    workings,
    form: (line) => chooseForm(line),
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

  /* A field for the form below a line; Enter sets it, Escape leaves everything as it was. */
  function chooseForm(line) {
    run.querySelector(".of-form")?.remove();
    const field = teapot.element("input", { value: formOf(line), spellcheck: false, autocomplete: "off" });
    field.setAttribute("aria-label", "Form of this line, such as fraction or 4 digits");
    field.setAttribute("list", "forms");
    const box = teapot.element("div", { className: "of-form" }, field);
    box.dataset.testid = "of-form";
    line.append(box);
    field.select();
    field.focus();
    field.addEventListener("keydown", async (event) => {
      event.stopPropagation();
      if (event.key === "Escape") { box.remove(); line.focus(); }
      if (event.key !== "Enter") return;
      event.preventDefault();
      const number = numberOf(line);
      const said = await change(line, "/form", { form: field.value });
      if (said) return box.replaceChildren(field, said);
      box.remove();
      document.getElementById(`line-${number}`)?.focus();
    });
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

  /* A chart of a line opens below it, and closes again. */
  async function chart(line, name, button) {
    const open = line.querySelector(`[data-chart=${name}]`);
    button.setAttribute("aria-expanded", String(!open));
    if (open) return open.remove();
    const reply = await fetch(`${teapot.page().url}/lines/${numberOf(line)}/pictures/${name}`).catch(() => null);
    if (!reply?.ok) return teapot.say(reply?.status === 404 ? "There is nothing to draw: the values are all alike, or too far apart." : `The ${name} could not be had.`);
    line.append(teapot.fragment(await reply.text()));
    line.querySelector(`[data-chart=${name}]`).scrollIntoView({ block: "nearest" });
  }

  async function copyTable(address) {
    const reply = await fetch(address).catch(() => null);
    if (!reply?.ok) return teapot.say("The table could not be copied.");
    await navigator.clipboard.writeText(await reply.text());
    teapot.say("The table is copied as CSV.");
  }

  async function moreRows(button) {
    const reply = await fetch(button.dataset.rows).catch(() => null);
    if (!reply?.ok) return teapot.say("More rows could not be had.");
    button.closest(".as-table").replaceChildren(teapot.fragment(await reply.text()));
  }

  run.addEventListener("click", (event) => {
    const rows = event.target.closest("[data-rows]");
    if (rows) moreRows(rows);
    const csv = event.target.closest("[data-csv]");
    if (csv) copyTable(csv.nextElementSibling.href);
    const line = event.target.closest(".line");
    const button = event.target.closest("[data-act]");
    if (line && button) {
      event.target.closest("details")?.removeAttribute("open");
      acts[button.dataset.act](line);
    }
    const picture = event.target.closest("[data-picture=histogram], [data-picture=scatter]");
    if (line && picture) chart(line, picture.dataset.picture, picture);
    const mend = event.target.closest("[data-mend]");
    if (line && mend && !mend.closest(".in-place, .of-form")) change(line, "", { text: mend.dataset.mend });
  });

  run.addEventListener("dblclick", (event) => {
    const line = event.target.closest(".line");
    if (line && !event.target.closest("input, textarea, button, .workings, .in-place")) acts.again(line);
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
