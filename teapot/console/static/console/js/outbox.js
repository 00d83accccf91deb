/* Waiting or refused lines to the server.

   A line that was entered is put here, with a token of its own, and into the browser's
   storage, and stays until the server has said that it is kept or why not. With the
   connection lost it is sent again, with the same token, so that it is kept once even if
   only the reply was lost. Lines go one after another, in the order in which they were
   entered. One that waits can be mended or taken back. */
import { fragment, store } from "../../teapot/js/dom.js";
import { windowsOpen } from "./draft.js";
import { refusalIn } from "./refusal.js";
import { newToken, post } from "./server.js";

const RETRY_FIRST = 500, RETRY_LAST = 8000;
let latest = 0;

/* A time for a new item, later than that of every other one. */
const now = () => { latest = Math.max(Date.now(), latest + 0.001); return latest; };

export class Outbox {
  constructor(sheet, from) {
    this.from = from; // the name of this window: each sends what was entered in it
    this.prefix = `teapot-outbox-${sheet}-`;
    this.items = this.load();
    this.busy = false;
    this.pause = RETRY_FIRST;
    this.on = { kept() {}, asks() {}, refused() {}, changed() {}, taken() {} };
    this.asking = null; // the item whose question waits for a reply
    this.held = null; // the item that is being mended
    this.trouble = ""; // why the first item is still here: "connection" or "server"
    addEventListener("online", () => this.wake());
    // the list is that of all windows of the sheet
    addEventListener("storage", (event) => { if (event.key === null || event.key.startsWith(this.prefix)) this.follow(); });
  }

  /* The lines of windows that are closed are sent by this one. */
  async adopt() {
    const alive = await windowsOpen();
    for (const item of this.items) {
      if (item.from === this.from || alive.has(item.from)) continue;
      item.from = this.from;
      this.store(item, true);
    }
    this.send();
  }

  /* Takes up what another window put here, mended or had taken. */
  follow() {
    const known = new Map(this.items.map((item) => [item.token, item]));
    const stored = this.load();
    const isAtIt = (item) => item === this.held || item === this.asking;
    const gone = this.items.filter((item) => !isAtIt(item) && !stored.some((one) => one.token === item.token));
    this.items = stored.map((item) => {
      const here = known.get(item.token);
      return here ? (isAtIt(here) ? here : Object.assign(here, item)) : item;
    });
    for (const item of known.values()) if (isAtIt(item) && !this.items.includes(item)) this.items.push(item);
    if (!this.items.length) this.trouble = "";
    this.on.changed(this.items);
    if (gone.length) this.on.taken();
    this.send();
  }

  /* Each item has a key of its own, so that two windows never write over each other. */
  load() {
    try {
      return Object.keys(localStorage).filter((key) => key.startsWith(this.prefix))
        .map((key) => JSON.parse(localStorage.getItem(key)))
        .sort((one, other) => one.at - other.at);
    } catch { return []; }
  }

  store(item, wanted) {
    store(this.prefix + item.token, wanted ? JSON.stringify(item) : null);
    this.on.changed(this.items);
  }

  put(text, below) {
    const item = { token: newToken(), text, below, at: now(), tries: 0, from: this.from };
    this.items.push(item);
    this.send();
    if (!item.tries) this.store(item, true); // else it was stored as it was sent
    return item;
  }

  /* Several lines in one item, of which those that are left begin with one that was
     refused: that one is sent by itself, and the rest together again, before what waits
     behind them. */
  takeApart(item, [first, ...others]) {
    const lines = others.length ? [first, others.join("\n")] : [first];
    const apart = lines.map((text, place) => {
      const at = item.at + (place + 1) * 0.001 / (lines.length + 1);
      return { token: newToken(), text, at, tries: 0, from: this.from };
    });
    this.items.splice(this.items.indexOf(item), 1, ...apart);
    for (const one of apart) this.store(one, true);
    this.store(item, false);
  }

  /* Sends the line again with a reply to its question. */
  reply(text) {
    const item = this.asking;
    item.replies.push(text);
    this.asking = null;
    this.store(item, true);
    this.send();
  }

  drop(item) {
    if (this.asking === item) this.asking = null;
    if (this.held === item) this.held = null;
    this.items = this.items.filter((other) => other !== item);
    if (!this.items.length) this.trouble = "";
    this.store(item, false);
  }

  /* While an item is held it is not sent, and what is behind it waits. */
  hold(item) { this.held = item; }

  /* Lets go of the item that was held, with another text if one is given. What was sent
     with its token before, and may have been kept, is mended by the server. */
  release(item, text = item.text) {
    this.held = null;
    item.text = text;
    if (this.items.includes(item)) this.store(item, true);
    this.wake();
  }

  /* A line that was sent may have been kept, though no reply came: the server is told. */
  takeBack(item) {
    if (!item.tries) return this.drop(item);
    item.gone = true;
    this.store(item, true);
    this.wake();
  }

  wake() {
    clearTimeout(this.timer);
    this.pause = RETRY_FIRST;
    this.send();
  }

  async send() {
    const item = this.items.find((one) => one.from === this.from);
    if (this.busy || this.asking || !item || item === this.held) return;
    this.busy = true;
    clearTimeout(this.timer);
    const wasGone = item.gone, text = item.text;
    item.tries += 1;
    this.store(item, true);
    const reply = await this.post(item);
    this.busy = false;
    if (!this.items.includes(item)) return this.send(); // another window had it taken
    if (!reply?.ok) return this.later(reply ? "server" : "connection");
    this.trouble = "";
    this.pause = RETRY_FIRST;
    const isAsItWas = item !== this.held && item.gone === wasGone && item.text === text;
    const brought = fragment(await reply.text());
    if (isAsItWas) this.settle(item, brought, reply.headers);
    // it was edited or taken back on its way: what was kept of it is told again
    else if (!refusalIn(brought)) this.on.kept(item, brought, reply.headers);
    this.send();
  }

  settle(item, brought, headers) {
    const said = refusalIn(brought);
    if (said?.matches(".asks")) {
      item.replies = (item.replies || []).slice(0, Number(said.dataset.taken));
      this.asking = item;
      this.store(item, true);
      return this.on.asks(item, said);
    }
    const left = brought.getElementById("news")?.dataset.left;
    if (left) this.takeApart(item, JSON.parse(left));
    else this.drop(item);
    this.on[said ? "refused" : "kept"](item, brought, headers);
  }

  later(trouble) {
    this.trouble = trouble;
    this.on.changed(this.items);
    this.timer = setTimeout(() => this.send(), this.pause);
    this.pause = Math.min(2 * this.pause, RETRY_LAST);
  }

  post(item) {
    if (item.gone) return post("/lines/take-back", { token: item.token });
    const fields = { text: item.text, token: item.token };
    if (item.below) fields.below = item.below;
    if (item.replies) fields.reply = item.replies;
    return post("/lines", fields);
  }
}
