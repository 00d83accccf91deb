/* Lines on their way to the server.

   A line that was entered is put here, with a token of its own, and into the browser's
   storage, and stays until the server has said that it is kept or why not. With the
   connection lost it is sent again, with the same token, so that it is kept once even if
   only the reply was lost. Lines go one after another, in the order in which they were
   entered. One that waits can be mended or taken back. */
(() => {
  const RETRY_FIRST = 500, RETRY_LAST = 8000;
  let latest = 0;

  /* A time for a new item, later than that of every other one. */
  const now = () => { latest = Math.max(Date.now(), latest + 0.001); return latest; };

  class Outbox {
    constructor(sheet) {
      this.prefix = `teapot-outbox-${sheet}-`;
      this.items = this.load();
      this.busy = false;
      this.pause = RETRY_FIRST;
      this.on = { kept() {}, asks() {}, refused() {}, changed() {} };
      this.asking = null; // the item whose question waits for a reply
      this.held = null; // the item that is being mended
      this.trouble = ""; // why the first item is still here: "connection" or "server"
      addEventListener("online", () => this.wake());
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
      try {
        if (wanted) localStorage.setItem(this.prefix + item.token, JSON.stringify(item));
        else localStorage.removeItem(this.prefix + item.token);
      } catch { /* full or private */ }
      this.on.changed(this.items);
    }

    put(text, below) {
      const item = { token: newToken(), text, below, at: now(), tries: 0 };
      this.items.push(item);
      this.store(item, true);
      this.send();
      return item;
    }

    /* Several lines in one item, of which those that are left begin with one that was
       refused: that one is sent by itself, and the rest together again, before what waits
       behind them. */
    takeApart(item, [first, ...others]) {
      const lines = others.length ? [first, others.join("\n")] : [first];
      const apart = lines.map((text, place) => {
        const at = item.at + (place + 1) * 0.001 / (lines.length + 1);
        return { token: newToken(), text, at, tries: 0 };
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
      const item = this.items[0];
      if (this.busy || this.asking || !item || item === this.held) return;
      this.busy = true;
      clearTimeout(this.timer);
      const wasGone = item.gone, text = item.text;
      item.tries += 1;
      this.store(item, true);
      const reply = await this.post(item);
      this.busy = false;
      if (!reply?.ok) return this.later(reply ? "server" : "connection");
      this.trouble = "";
      this.pause = RETRY_FIRST;
      const isAsItWas = item !== this.held && item.gone === wasGone && item.text === text;
      if (isAsItWas) await this.settle(item, reply);
      // it was mended or taken back on its way: what was kept of it is told again
      else if (!reply.headers.has("X-Refused")) this.on.kept(item, await reply.text(), reply.headers);
      this.send();
    }

    async settle(item, reply) {
      const html = await reply.text();
      if (reply.headers.has("X-Several")) {
        const left = JSON.parse(teapot.fragment(html).querySelector("[data-left]").dataset.left);
        this.takeApart(item, left);
        return this.on.kept(item, html, reply.headers);
      }
      if (reply.headers.has("X-Asks")) {
        item.replies = (item.replies || []).slice(0, Number(reply.headers.get("X-Asks")));
        this.asking = item;
        this.store(item, true);
        return this.on.asks(item, html);
      }
      this.drop(item);
      this.on[reply.headers.has("X-Refused") ? "refused" : "kept"](item, html, reply.headers);
    }

    later(trouble) {
      this.trouble = trouble;
      this.on.changed(this.items);
      this.timer = setTimeout(() => this.send(), this.pause);
      this.pause = Math.min(2 * this.pause, RETRY_LAST);
    }

    post(item) {
      if (item.gone) return teapot.post("/lines/take-back", { token: item.token });
      const fields = { text: item.text, token: item.token };
      if (item.below) fields.below = item.below;
      if (item.replies) fields.reply = item.replies;
      return teapot.post("/lines", fields);
    }
  }

  function newToken() {
    if (crypto.randomUUID) return crypto.randomUUID();
    const bytes = crypto.getRandomValues(new Uint8Array(16));
    const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
    return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, "$1-$2-$3-$4-$5");
  }

  window.teapot.Outbox = Outbox;
  window.teapot.newToken = newToken;
})();
