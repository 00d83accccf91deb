/* What the scripts of the sheet page share. */
window.teapot = {
  page: () => document.getElementById("page").dataset,

  /** A fragment of HTML from the server as elements. */
  fragment(html) {
    const holder = document.createElement("template");
    holder.innerHTML = html;
    return holder.content;
  },

  /** Makes an element of the page like a fresh one from the server, leaving in place what
      the person has there: where the focus is, what is open, what is typed and not sent. */
  morph(shown, fresh) {
    const isTyped = (node) => node.matches("input") && node.value !== node.defaultValue;
    Idiomorph.morph(shown, fresh, {
      callbacks: {
        beforeAttributeUpdated: (name, node) => !(name === "open" || (name === "value" && isTyped(node))),
        beforeNodeRemoved: (node) => !node.matches?.(".in-place, .of-form, .workings, .chart-box, .run-head"),
      },
    });
  },

  /** Sends a form to a path under the sheet's own; the reply, null without a connection.
      One goes after another, so that no reply is older than what is shown. */
  post(path, fields = {}, options = {}) {
    const sent = teapot.last.then(() => {
      const body = new URLSearchParams();
      const since = document.getElementById("run").dataset.revision;
      for (const [name, value] of Object.entries({ since, ...fields })) {
        for (const one of [value].flat()) body.append(name, one);
      }
      const csrf = JSON.parse(document.body.getAttribute("hx-headers"))["X-CSRFToken"];
      const signal = AbortSignal.timeout(15000);
      const headers = { "X-CSRFToken": csrf };
      return fetch(teapot.page().url + path, { method: "POST", body, headers, signal, ...options });
    }).catch(() => null);
    teapot.last = sent;
    return sent;
  },
  last: Promise.resolve(),

  /** Says something for a moment at the edge of the page. */
  say(text) {
    const said = document.getElementById("said");
    said.textContent = text;
    clearTimeout(teapot.saying);
    teapot.saying = setTimeout(() => { said.textContent = ""; }, 4000);
  },

  /** Makes the field of a question in ``box`` go: Enter replies, Escape leaves it. */
  askIn(box, reply, leave) {
    const field = box.querySelector(".asks input");
    field.form.addEventListener("submit", (event) => event.preventDefault());
    field.addEventListener("keydown", (event) => {
      event.stopPropagation();
      if (event.key === "Escape") leave();
      if (event.key !== "Enter" || !field.value.trim()) return;
      event.preventDefault();
      reply(field.value);
    });
    field.focus();
  },

  /** Questions in a form: Enter goes on to the next one, and from the last it sends them. */
  oneAfterAnother(form) {
    form.addEventListener("keydown", (event) => {
      if (event.key !== "Enter" || event.target.name !== "reply") return;
      const fields = [...form.querySelectorAll("[name=reply]")];
      const next = fields[fields.indexOf(event.target) + 1];
      if (!next) return;
      event.preventDefault();
      next.focus();
      next.select();
    });
  },

  /** Places in a text: the engine counts code points, the browser UTF-16 units. */
  unitsOf: (text, points) => Array.from(text).slice(0, points).join("").length,
  pointsOf: (text, units) => Array.from(text.slice(0, units)).length,

  element(tag, fields, ...children) {
    const made = Object.assign(document.createElement(tag), fields);
    made.append(...children);
    return made;
  },
};

// by this the server tells today() and now() as the clock here has them
document.cookie = `zone=${Intl.DateTimeFormat().resolvedOptions().timeZone};path=/;samesite=lax;max-age=31536000`;

document.addEventListener("alpine:init", () => {
  Alpine.data("menu", () => ({
    open: false,
    toggle() { this.open = !this.open; },
    close() { this.open = false; },
  }));
  Alpine.data("drawer", () => ({
    open: false,
    toggle() {
      this.open = !this.open;
      document.getElementById("side").classList.toggle("is-open", this.open);
    },
  }));
});

document.addEventListener("click", (event) => {
  const opener = event.target.closest("[data-opens]");
  if (opener) document.getElementById(opener.dataset.opens).showModal();
});
