/* The lines that are entered and not kept yet, below the others: on their way, waiting for
   the connection, waiting for a reply to their question, or refused and put aside. Each
   can be mended there or taken back; what is in the entry is left alone. */
import Alpine from "../../teapot/dist/alpine.js";
import { say } from "../../teapot/js/dom.js";
import { draftOf } from "./draft.js";
import { area, write } from "./field.js";
import { typedNow } from "./history.js";
import { Outbox } from "./outbox.js";
import { askIn } from "./questions.js";
import { page } from "./server.js";

const SAID = {
  "": "on its way",
  connection: "waits for the connection",
  server: "waits for the server, which could not take it yet",
};
const SOON = 150; // milliseconds in which a line is kept as a rule: it is not shown as waiting before
const LONGEST = 4; // rows of a text that are shown of one that waits

export const draft = draftOf(page().sheet);
export const outbox = new Outbox(page().sheet, draft.name);

const said = new Map(); // what was said against each line that is put aside
let question = null; // of the line that asks, as it came
let list = null; // the component, from its start on
let count = 0;

/** A line that was refused while the person was at something else. */
export const putAside = (text, why) => list.putAside(text, why);

const rowsOf = (item) => item.text.split("\n").length;

/* Many lines take a while: it is said what is done, and they can be taken back meanwhile. */
function stateOf(item) {
  const isMany = !outbox.trouble && rowsOf(item) > LONGEST;
  return isMany ? `${rowsOf(item).toLocaleString("en")} lines are being worked out` : SAID[outbox.trouble];
}

function inShort(text) {
  const rows = text.split("\n");
  return rows.length > LONGEST ? `${rows[0]}\n… and ${rows.length - 1} more lines` : text;
}

/* Its reply is about to come: to show that it waits would only delay what it brings. */
const isOnlyJustSent = (item) => !outbox.trouble && outbox.asking !== item && outbox.held !== item
  && Date.now() < item.at + SOON;

const itemOf = (row) => outbox.items.find((item) => item.token === row.key);

Alpine.data("waiting", () => ({
  sent: [],
  aside: [],
  edited: [], // the keys of the rows whose text stands in a field
  asking: null, // the key of the one whose question waits for a reply

  get rows() { return [...this.sent, ...this.aside]; },

  init() {
    list = this;
    outbox.on.changed = () => this.show();
    outbox.on.asks = (item, said) => this.ask(item, said);
    this.show();
    for (const text of draft.read().aside || []) this.putAside(text, null);
  },

  show() {
    const onTheirWay = outbox.items.filter((item) => !item.gone);
    const shown = onTheirWay.filter((item) => !isOnlyJustSent(item));
    if (shown.length < onTheirWay.length) {
      clearTimeout(this.soon);
      this.soon = setTimeout(() => this.show(), SOON);
    }
    this.sent = shown.map((item) => ({
      key: item.token, text: item.text, short: inShort(item.text), kind: "waiting",
      state: outbox.trouble || "sending", says: stateOf(item), mend: "edit", drop: "take back",
      isMany: rowsOf(item) > LONGEST,
    }));
    const hasLines = Boolean(document.querySelector("#run > .line"));
    document.getElementById("blank").hidden = hasLines || onTheirWay.length > 0;
  },

  looks(row) {
    return {
      "on-its-way": row.kind === "waiting",
      "aside-line": row.kind === "put-aside",
      "is-edited": this.isEdited(row),
      asking: this.isAsking(row),
      "is-many": Boolean(row.isMany),
    };
  },

  isEdited(row) { return this.edited.includes(row.key); },

  appear() {
    const row = this.$el;
    this.$nextTick(() => row.scrollIntoView({ block: "nearest" }));
  },

  // -- a line is mended or taken back ------------------------------------------------

  mend(row) {
    if (this.isEdited(row)) return;
    if (row.kind === "waiting") outbox.hold(itemOf(row));
    this.edited.push(row.key);
  },

  /* The field in the place of a row's text. */
  begin(row) {
    const field = this.$el;
    field.value = row.mended || row.text;
    field.rows = field.value.split("\n").length;
    this.$nextTick(() => {
      field.focus();
      field.scrollIntoView({ block: "nearest" });
    });
  },

  /* Enter takes what is in it, Escape leaves it. */
  key(event, row) {
    event.stopPropagation();
    if (event.isComposing) return;
    const text = event.target.value;
    const takes = event.key === "Enter" && !event.shiftKey;
    if (takes) event.preventDefault();
    if (event.key !== "Escape" && !(takes && text.trim())) return;
    this.edited = this.edited.filter((key) => key !== row.key);
    area.focus();
    const item = itemOf(row);
    if (item) return outbox.release(item, takes ? text : item.text);
    if (!takes) return;
    this.forget(row);
    outbox.put(text);
  },

  takeBack(row) {
    if (row.kind === "put-aside") this.forget(row);
    else {
      typedNow(row.text);
      outbox.takeBack(itemOf(row));
      say("The line is taken back. Up brings it into the entry.");
    }
    area.focus();
  },

  // -- a line asks ---------------------------------------------------------------------

  ask(item, said) {
    question = said;
    this.asking = item.token;
    this.show();
  },

  isAsking(row) { return this.asking === row.key; },

  /* Its question has a field for the reply; what comes behind it waits. */
  askHere(row) {
    const box = this.$el, item = itemOf(row);
    box.append(question);
    const end = () => {
      this.asking = null;
      area.focus();
    };
    this.$nextTick(() => askIn(box, (reply) => { end(); outbox.reply(reply); }, () => {
      end();
      outbox.drop(item);
      if (area.value) this.putAside(item.text, null);
      else write(item.text);
      outbox.send();
    }));
    box.scrollIntoView({ block: "nearest" });
  },

  // -- lines put aside -------------------------------------------------------------------

  putAside(text, why) {
    const key = `aside-${count += 1}`;
    if (why) said.set(key, why);
    this.aside.push({ key, text, short: text, kind: "put-aside", state: "", says: "", mend: "mend it", drop: "drop it", mended: null });
    this.keep();
  },

  fill(row) { if (said.has(row.key)) this.$el.append(said.get(row.key)); },

  /* A mend that was offered goes into the field. */
  offered(event, row) {
    const mend = event.target.closest("[data-mend]");
    if (!mend) return;
    event.stopPropagation();
    row.mended = mend.dataset.mend;
    this.mend(row);
  },

  forget(row) {
    said.delete(row.key);
    this.aside = this.aside.filter((one) => one.key !== row.key);
    this.keep();
  },

  /* What is put aside is kept as what is half typed is. */
  keep() { draft.write({ aside: this.aside.map((one) => one.text) }); },
}));
