/* Lines on their way to the server.

   A line leaves the entry with a token of its own and stays here, and in the
   browser's storage, until the server has said that it is kept or why not. With
   the connection lost it is sent again, with the same token, so that it is kept
   once even if only the reply was lost. Lines go one after another. */
(() => {
  const RETRY_FIRST = 500, RETRY_LAST = 8000;

  class Outbox {
    constructor(sheet) {
      this.prefix = `teapot-outbox-${sheet}-`;
      this.items = this.load();
      this.busy = false;
      this.pause = RETRY_FIRST;
      this.on = { kept() {}, apart() {}, asks() {}, refused() {}, lost() {}, changed() {} };
      this.asking = null; // the item whose question waits for a reply
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
      const item = { token: newToken(), text, below, at: Date.now() };
      this.items.push(item);
      this.store(item, true);
      this.send();
    }

    /* Several lines in one item: each is sent by itself, before what waits behind them. */
    takeApart(item, lines) {
      const apart = lines.map((text, place) => {
        const at = item.at + (place + 1) / (lines.length + 1);
        return { token: newToken(), text, at };
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
      this.items = this.items.filter((other) => other !== item);
      this.store(item, false);
    }

    wake() {
      clearTimeout(this.timer);
      this.pause = RETRY_FIRST;
      this.send();
    }

    async send() {
      if (this.busy || this.asking || !this.items.length) return;
      this.busy = true;
      const item = this.items[0];
      const reply = await this.post(item);
      this.busy = false;
      if (!this.items.includes(item)) return this.send();
      if (reply?.ok) {
        this.pause = RETRY_FIRST;
        if (reply.headers.has("X-Several")) {
          this.takeApart(item, (await reply.json()).lines);
          this.on.apart(item);
          return this.send();
        }
        const html = await reply.text();
        if (reply.headers.has("X-Asks")) {
          item.replies = (item.replies || []).slice(0, Number(reply.headers.get("X-Asks")));
          this.asking = item;
          this.store(item, true);
          return this.on.asks(item, html);
        }
        this.drop(item);
        this.on[reply.headers.has("X-Refused") ? "refused" : "kept"](item, html, reply.headers);
        return this.send();
      }
      this.on.lost(item, reply ? reply.status : 0);
      clearTimeout(this.timer);
      this.timer = setTimeout(() => this.send(), this.pause);
      this.pause = Math.min(2 * this.pause, RETRY_LAST);
    }

    post(item) {
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
