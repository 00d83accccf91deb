/* The lines that are entered and not kept yet, below the others: on their way, waiting for
   the connection, waiting for a reply to their question, or refused and put aside. Each
   can be mended there or taken back; what is in the entry is left alone. */
(() => {
  const SAID = {
    "": "on its way",
    connection: "waits for the connection",
    server: "waits for the server, which could not take it yet",
  };

  teapot.Waiting = class {
    constructor(outbox) {
      this.outbox = outbox;
      this.list = document.getElementById("waiting");
      this.rows = new Map(); // the row of each item
      outbox.on.changed = (items) => this.show(items);
      outbox.on.asks = (item, html) => this.ask(item, html);
      this.show(outbox.items);
    }

    show(items) {
      const shown = items.filter((item) => !item.gone);
      for (const [item, row] of this.rows) {
        if (shown.includes(item)) continue;
        row.remove();
        this.rows.delete(item);
      }
      let before = null;
      for (const item of shown) {
        const row = this.rows.get(item) || this.add(item);
        this.say(item, row);
        if (before ? before.nextElementSibling !== row : this.list.firstElementChild !== row) {
          if (before) before.after(row); else this.list.prepend(row);
        }
        before = row;
      }
      const run = document.getElementById("run");
      document.getElementById("blank").hidden = Boolean(run.querySelector(".line")) || shown.length > 0;
    }

    add(item) {
      const row = teapot.element("li", { className: "on-its-way" },
        teapot.element("code"), teapot.element("span", { className: "state" }), this.buttons(item));
      row.dataset.testid = "waiting";
      this.rows.set(item, row);
      this.list.append(row);
      row.scrollIntoView({ block: "nearest" });
      return row;
    }

    say(item, row) {
      const trouble = this.outbox.trouble;
      row.querySelector("code").textContent = item.text;
      row.querySelector(".state").textContent = SAID[trouble];
      row.dataset.state = trouble || "sending";
    }

    buttons(item) {
      const mend = teapot.element("button", { type: "button", className: "mend", textContent: "mend" });
      const back = teapot.element("button", { type: "button", className: "mend", textContent: "take back" });
      mend.addEventListener("click", () => {
        this.outbox.hold(item);
        this.edit(this.rows.get(item), item.text, (text) => this.outbox.release(item, text), () => this.outbox.release(item));
      });
      back.addEventListener("click", () => {
        teapot.typedNow(item.text);
        this.outbox.takeBack(item);
        document.getElementById("entry").focus();
        teapot.say("The line is taken back. Up brings it into the entry.");
      });
      return teapot.element("span", { className: "acts" }, mend, back);
    }

    /* A field in the place of the row's text: Enter takes what is in it, Escape leaves it. */
    edit(row, text, done, leave) {
      if (row.querySelector(".in-row")) return;
      const field = teapot.element("textarea", { className: "in-row", value: text, rows: text.split("\n").length, spellcheck: false });
      field.setAttribute("aria-label", "The line that waits");
      const close = (act, ...given) => {
        field.remove();
        row.classList.remove("is-edited");
        act(...given);
        document.getElementById("entry").focus();
      };
      field.addEventListener("keydown", (event) => {
        event.stopPropagation();
        if (event.isComposing) return;
        if (event.key === "Escape") close(leave);
        if (event.key !== "Enter" || event.shiftKey) return;
        event.preventDefault();
        if (field.value.trim()) close(done, field.value);
      });
      row.classList.add("is-edited");
      row.prepend(field);
      field.focus();
      row.scrollIntoView({ block: "nearest" });
    }

    /* The line's question, with a field for the reply; what comes behind it waits. */
    ask(item, html) {
      const row = this.rows.get(item) || this.add(item);
      row.querySelector(".asks")?.remove();
      row.append(teapot.fragment(html));
      row.classList.add("asking");
      const end = () => {
        row.querySelector(".asks")?.remove();
        row.classList.remove("asking");
        document.getElementById("entry").focus();
      };
      teapot.askIn(row, (reply) => { end(); this.outbox.reply(reply); }, () => {
        end();
        this.outbox.drop(item);
        if (document.getElementById("entry").value) this.putAside(item.text, null);
        else teapot.write(item.text);
        this.outbox.send();
      });
      row.scrollIntoView({ block: "nearest" });
    }

    /* A line that was refused while the person was at something else. */
    putAside(text, said) {
      const row = teapot.element("li", { className: "aside-line" }, teapot.element("code", { textContent: text }));
      row.dataset.testid = "put-aside";
      const send = (line) => { row.remove(); this.outbox.put(line); };
      const edit = (line) => this.edit(row, line, send, () => {});
      if (said) row.append(said);
      row.querySelectorAll("[data-mend]").forEach((mend) => mend.addEventListener("click", (event) => {
        event.stopPropagation();
        edit(mend.dataset.mend);
      }));
      const mend = teapot.element("button", { type: "button", className: "mend", textContent: "mend it" });
      const drop = teapot.element("button", { type: "button", className: "mend", textContent: "drop it" });
      mend.addEventListener("click", () => edit(text));
      drop.addEventListener("click", () => { row.remove(); document.getElementById("entry").focus(); });
      row.append(teapot.element("span", { className: "acts" }, mend, drop));
      this.list.append(row);
      row.scrollIntoView({ block: "nearest" });
    }
  };
})();
