/* What can be done with a line: mended in place, moved, deleted, shown in another
   form, opened into its workings; by mouse and by keyboard. */
import { copyText, element, fragment, say } from "../../teapot/js/dom.js";
import { area } from "./field.js";
import { writeOver } from "./history.js";
import { mendAt } from "./mending.js";
import { lookForNews, redo, take, undo } from "./news.js";
import { run } from "./run.js";
import { get, newToken, post } from "./server.js";
import { toggleChart, toggleWorkings } from "./workings.js";

const numberOf = (line) => line.dataset.number;
const answersOf = (line) => [...line.querySelectorAll("[data-testid=answer]")];

const acts = {
  again: (line) => writeOver(line.dataset.input),
  async copy(line) {
    const texts = await Promise.all(answersOf(line).map(wholeText)).catch(() => null);
    if (!texts) return say("The whole answer could not be loaded.");
    copyText(texts.join("; "), "The answer is copied.");
  },
  mathml(line) {
    const said = [...line.querySelectorAll(".equation")].map((one) => {
      const inside = [...one.querySelectorAll("math")].map((math) => math.innerHTML).join("");
      return `<math xmlns="http://www.w3.org/1998/Math/MathML" display="block"><mrow>${inside}</mrow></math>`;
    });
    copyText(said.join("\n"), "The line is copied as MathML.");
  },
  latex: (line) => copyFrom(line, "latex", "LaTeX"),
  svg: (line) => copyFrom(line, "line.svg", "SVG"),
  mend(line) {
    const was = line.dataset.input;
    mendAt(line, was, (text, reply, theirs = was) => change(line, "", { text, reply, was: theirs }));
  },
  below: (line) => mendAt(line, "", (text, reply) => insert(line, text, reply), true),
  up: (line) => orSay(change(line, "/move", { way: "up" })),
  down: (line) => orSay(change(line, "/move", { way: "down" })),
  async delete(line) {
    const next = line.nextElementSibling || line.previousElementSibling;
    if (await orSay(change(line, "/delete"))) return;
    say(`Line ${numberOf(line)} is deleted. Ctrl+Z brings it back.`);
    if (next?.matches(".line")) next.focus(); else area.focus();
  },
  workings: toggleWorkings,
  form: (line) => chooseForm(line),
};

async function copyFrom(line, path, what) {
  const text = await get(`/lines/${numberOf(line)}/${path}`);
  if (text === null) return say(`The ${what} could not be loaded.`);
  copyText(text, `The line is copied as ${what}.`);
}

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
  const reply = await post(`/lines/${numberOf(line)}${path}`, fields);
  return settle(reply);
}

/* Says why a change was not made; what was refused. */
async function orSay(changing) {
  const said = await changing;
  if (said) {
    say(said.firstChild.textContent);
    lookForNews();
  }
  return said;
}

async function insert(line, text, reply) {
  const fields = { text, reply, token: newToken(), below: numberOf(line) };
  return settle(await post("/lines", fields));
}

async function settle(reply) {
  let said = null;
  const inPlace = (text, refusal) => { said = refusal ?? element("p", { className: "error", textContent: text }); };
  return await take(reply, { sayWhy: inPlace }) ? null : said;
}

/* A field for the form below a line; Enter sets it, Escape leaves everything as it was. */
function chooseForm(line) {
  run.querySelector(".of-form")?.remove();
  const field = element("input", { value: formOf(line), spellcheck: false, autocomplete: "off" });
  field.setAttribute("aria-label", "Form of this line, such as fraction or 4 digits");
  field.setAttribute("list", "forms");
  const box = element("div", { className: "of-form" }, field);
  box.dataset.testid = "of-form";
  line.append(box);
  field.select();
  field.focus();
  offerUnits(line, box);
  async function set(form) {
    const number = numberOf(line);
    const said = await change(line, "/form", { form });
    if (said) return box.replaceChildren(field, said);
    box.remove();
    document.getElementById(`line-${number}`)?.focus();
  }
  box.addEventListener("keydown", (event) => {
    event.stopPropagation();
    if (event.key === "Escape") { box.remove(); line.focus(); }
    if (event.key !== "Enter" || event.target !== field) return;
    event.preventDefault();
    set(field.value);
  });
  box.addEventListener("click", (event) => {
    const unit = event.target.closest("[data-unit]");
    if (unit) set(unit.dataset.unit);
  });
}

/* The units that the answer may be shown in, below the field. */
async function offerUnits(line, box) {
  const html = await get(`/lines/${numberOf(line)}/units`);
  if (html) box.append(fragment(html));
}

async function copyTable(address) {
  const reply = await fetch(address).catch(() => null);
  if (!reply?.ok) return say("The table could not be copied.");
  copyText(await reply.text(), "The table is copied as CSV.");
}

async function moreRows(button) {
  const reply = await fetch(button.dataset.rows).catch(() => null);
  if (!reply?.ok) return say("More rows could not be loaded.");
  button.closest(".as-table").replaceChildren(fragment(await reply.text()));
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
  const picture = event.target.closest("[data-picture=histogram], [data-picture=scatter], [data-picture=graph]");
  if (line && picture) toggleChart(line, picture.dataset.picture, picture);
  const mend = event.target.closest("[data-mend]");
  if (line && mend && !mend.closest(".in-place, .of-form")) change(line, "", { text: mend.dataset.mend });
});

run.addEventListener("dblclick", (event) => {
  const line = event.target.closest(".line");
  if (line && !event.target.closest("input, textarea, button, .workings, .in-place")) acts.again(line);
});

// -- keys on a line -----------------------------------------------------------

const KEYS = { e: "mend", l: "latex", w: "workings", f: "form", c: "copy", b: "below", Enter: "again", Delete: "delete" };

run.addEventListener("keydown", async (event) => {
  const line = event.target;
  if (!line.matches?.(".line")) return;
  if (event.ctrlKey && event.key.toLowerCase() === "z") {
    event.preventDefault();
    return event.shiftKey ? redo() : undo();
  }
  if (event.ctrlKey || event.metaKey) return;
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
