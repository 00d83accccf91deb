/* The quick switch: a part of a name, from any page, goes to what is called so. */
document.addEventListener("DOMContentLoaded", () => {
  const dialog = document.getElementById("switch-dialog");
  const words = document.getElementById("switch-words");
  const list = document.getElementById("switch-found");
  let things = [];

  const options = () => [...list.children];
  const chosen = () => list.querySelector("[aria-selected=true]");

  function choose(option) {
    for (const other of options()) other.setAttribute("aria-selected", String(other === option));
    option?.scrollIntoView({ block: "nearest" });
    if (option) words.setAttribute("aria-activedescendant", option.id);
  }

  function show() {
    const parts = words.value.toLowerCase().split(/\s+/).filter(Boolean);
    const has = (thing) => parts.every((part) => `${thing.name} ${thing.folder}`.toLowerCase().includes(part));
    const begins = (thing) => Number(!thing.name.toLowerCase().startsWith(parts[0] ?? ""));
    const found = things.filter(has).sort((a, b) => begins(a) - begins(b)).slice(0, 12);
    list.replaceChildren(...found.map((thing, at) => {
      const option = document.createElement("li");
      Object.assign(option, { id: `switch-${at}`, role: "option" });
      option.dataset.address = thing.address;
      const kind = Object.assign(document.createElement("span"), { className: "kind", textContent: thing.kind });
      option.append(kind, ` ${thing.name}`);
      if (thing.folder) option.append(Object.assign(document.createElement("small"), { textContent: ` ${thing.folder}` }));
      return option;
    }));
    choose(list.firstElementChild);
  }

  async function open() {
    if (dialog.open) return;
    words.value = "";
    dialog.showModal();
    const reply = await fetch(dialog.dataset.names).catch(() => null);
    things = reply?.ok ? (await reply.json()).things : [];
    show();
  }

  const go = (option) => { if (option) location.assign(option.dataset.address); };

  document.addEventListener("keydown", (event) => {
    if (event.altKey && !event.ctrlKey && event.code === "KeyO") {
      event.preventDefault();
      open();
    }
  });
  document.querySelector("[data-switch]")?.addEventListener("click", open);
  words.addEventListener("input", show);
  words.addEventListener("keydown", (event) => {
    const all = options();
    const at = all.indexOf(chosen());
    if (event.key === "ArrowDown") choose(all[Math.min(at + 1, all.length - 1)]);
    else if (event.key === "ArrowUp") choose(all[Math.max(at - 1, 0)]);
    else if (event.key === "Enter") go(chosen());
    else return;
    event.preventDefault();
  });
  list.addEventListener("click", (event) => go(event.target.closest("[role=option]")));
});
