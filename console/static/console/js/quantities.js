/* The quantities beside the lines, and the marks of lines that are out of date. */
document.addEventListener("DOMContentLoaded", () => {
  const side = document.getElementById("side");
  if (!side) return;
  let asked = 0;

  /** Asks for the list anew. */
  teapot.showQuantities = async () => {
    const ask = ++asked;
    const reply = await fetch(`${teapot.page().url}/quantities`).catch(() => null);
    if (!reply?.ok || ask !== asked) return;
    const fresh = teapot.fragment(await reply.text());
    if (ask !== asked) return;
    teapot.morph(document.getElementById("quantities"), fresh.firstElementChild);
    teapot.showFlags();
  };

  /** Marks the lines that are out of date. */
  teapot.showFlags = () => teapot.stayAtFoot(() => {
    for (const flag of document.querySelectorAll("[data-flag]")) flag.replaceChildren();
    for (const flag of side.querySelectorAll("[data-flag-for]")) {
      document.querySelector(`#line-${flag.dataset.flagFor} [data-flag]`)?.append(flag.content.cloneNode(true));
    }
  });

  // -- a given value changed where it stands ----------------------------------------

  async function change(field) {
    if (field.value.trim() === field.defaultValue.trim() || !field.value.trim()) return;
    const before = field.defaultValue;
    field.defaultValue = field.value;
    const made = await teapot.take(await teapot.post("/quantities/value", { name: field.dataset.valueOf, value: field.value }));
    if (!made) field.value = field.defaultValue = before;
  }

  /* One unit of the last figure that is written, up or down. */
  function nudged(text, way) {
    const places = (text.split(".")[1] || "").length;
    const scaled = BigInt(text.replace("−", "-").replace(".", "")) + BigInt(way);
    const minus = scaled < 0n ? "-" : "";
    const figures = (scaled < 0n ? -scaled : scaled).toString().padStart(places + 1, "0");
    return minus + (places ? `${figures.slice(0, -places)}.${figures.slice(-places)}` : figures);
  }

  let pause = null;
  side.addEventListener("keydown", (event) => {
    const field = event.target.closest("[data-value-of]");
    if (!field) return;
    if (event.key === "Enter") { event.preventDefault(); change(field); }
    if (event.key === "Escape") field.value = field.defaultValue;
    const way = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (!way || !/^[-−]?\d+(\.\d+)?$/.test(field.value.trim())) return;
    event.preventDefault();
    field.value = nudged(field.value.trim(), way);
    clearTimeout(pause);
    pause = setTimeout(() => change(field), 120);
  });
  side.addEventListener("change", (event) => {
    const field = event.target.closest("[data-value-of]");
    if (field) change(field);
  });

  side.addEventListener("submit", async (event) => {
    const form = event.target.closest("[data-rename]");
    if (!form) return;
    event.preventDefault();
    await teapot.take(await teapot.post("/quantities/rename", { name: form.dataset.rename, new: form.elements.new.value }));
  });

  document.addEventListener("click", async (event) => {
    const again = event.target.closest("[data-again], [data-again-all]");
    if (again) teapot.take(await teapot.post("/quantities/again", { line: again.dataset.again || "" }), { stay: false });
    const forget = event.target.closest("[data-forget]");
    if (forget) teapot.send(`/forget ${forget.dataset.forget}`);
  });

  teapot.showQuantities();
});
