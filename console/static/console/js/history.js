/* Up and Down walk through what was typed before, in any sheet; a search finds more. */
document.addEventListener("DOMContentLoaded", () => {
  const area = document.getElementById("entry");
  if (!area) return;
  const dialog = document.getElementById("history-dialog");
  const words = document.getElementById("history-words");
  let lines = [];
  let walking = null; // { prefix, at, shown }: at counts from the newest line

  fetch("/history").then((reply) => reply.json()).then((reply) => {
    lines = [...reply.lines, ...lines];
  }).catch(() => { /* no connection: only what is typed from now on */ });

  teapot.typedNow = (text) => {
    lines = lines.filter((line) => line !== text);
    lines.push(text);
    walking = null;
  };

  /** Puts the next line of the history that begins with what stands before the caret
      into the entry. False where the caret can move between rows instead. */
  teapot.walk = (way) => {
    const caret = area.selectionStart;
    const rows = area.value.slice(...(way < 0 ? [0, caret] : [caret]));
    if (walking?.shown !== area.value) {
      if (rows.includes("\n") || (way > 0 && !walking)) return false;
      walking = { prefix: area.value.slice(0, caret), at: 0, shown: area.value, typed: area.value };
    }
    const found = lines.filter((line) => line.startsWith(walking.prefix) && line !== walking.typed).reverse();
    const at = walking.at - way;
    if (at < 0 || at > found.length) return true;
    const text = at ? found[at - 1] : walking.typed;
    const { prefix, typed } = walking;
    teapot.write(text, prefix ? prefix.length : text.length);
    walking = { prefix, at, shown: text, typed };
    return true;
  };

  // -- the search -------------------------------------------------------------

  teapot.openHistory = () => {
    dialog.showModal();
    words.select();
    htmx.trigger(words, "opened");
  };
  document.querySelector("[data-opens=history-dialog]").addEventListener("click", () => htmx.trigger(words, "opened"));

  const options = () => [...dialog.querySelectorAll("[role=option]")];
  function choose(option) {
    for (const other of options()) other.setAttribute("aria-selected", String(other === option));
    option?.scrollIntoView({ block: "nearest" });
  }
  function use(option) {
    if (!option) return;
    dialog.close();
    teapot.write(option.dataset.text);
  }
  dialog.addEventListener("keydown", (event) => {
    const all = options();
    const at = all.findIndex((option) => option.getAttribute("aria-selected") === "true");
    if (event.key === "ArrowDown") choose(all[Math.min(at + 1, all.length - 1)]);
    else if (event.key === "ArrowUp") choose(all[Math.max(at - 1, 0)]);
    else if (event.key === "Enter" && event.target === words) use(all[Math.max(at, 0)]);
    else return;
    event.preventDefault();
  });
  dialog.addEventListener("click", (event) => use(event.target.closest("[role=option]")));
  dialog.addEventListener("close", () => area.focus());
});
