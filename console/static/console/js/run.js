/* The run of lines: new ones at the foot, those of other windows too. */
document.addEventListener("DOMContentLoaded", () => {
  const run = document.getElementById("run");
  if (!run) return;
  const scroller = document.getElementById("scroll");
  const EVERY = 4000;

  const toFoot = () => { scroller.scrollTop = scroller.scrollHeight; };
  toFoot();
  document.fonts?.ready.then(toFoot);
  const isAtFoot = () => scroller.scrollHeight - scroller.scrollTop - scroller.clientHeight < 60;

  /** Shows lines that are not here yet, in their order, and the quantities with them. */
  teapot.showNewLines = (html, revision, stay = false) => {
    if (Number(revision) < Number(run.dataset.revision)) return;
    const reply = teapot.fragment(html);
    const quantities = reply.querySelector("template[data-quantities]");
    for (const line of reply.querySelectorAll(".line")) {
      const here = document.getElementById(line.id);
      if (here) here.replaceWith(line); else run.append(line);
      htmx.process(line);
    }
    if (quantities) document.getElementById("quantities").replaceWith(quantities.content);
    run.dataset.revision = revision;
    document.getElementById("blank").hidden = run.childElementCount > 0;
    if (!stay) toFoot();
  };

  async function lookForNews() {
    if (document.hidden) return;
    try {
      const reply = await fetch(`${run.dataset.url}?since=${run.dataset.revision}`);
      if (reply.status === 200) teapot.showNewLines(await reply.text(), reply.headers.get("X-Revision"), !isAtFoot());
    } catch { /* no connection: asked again later */ }
  }
  setInterval(lookForNews, EVERY);
  document.addEventListener("visibilitychange", lookForNews);

  // earlier lines come in above without moving what is being read
  let height = 0;
  scroller.addEventListener("htmx:beforeSwap", () => { height = scroller.scrollHeight - scroller.scrollTop; });
  scroller.addEventListener("htmx:afterSwap", () => { scroller.scrollTop = scroller.scrollHeight - height; });

  run.addEventListener("click", (event) => {
    const button = event.target.closest("[data-copy]");
    if (!button) return;
    const answers = button.closest(".line").querySelectorAll("[data-testid=answer]");
    navigator.clipboard.writeText([...answers].map((answer) => answer.dataset.text).join("; "));
    button.textContent = "copied";
    setTimeout(() => { button.textContent = "copy"; }, 1200);
  });

  document.addEventListener("focusin", (event) => {
    const line = event.target.closest(".line");
    if (line) line.scrollIntoView({ block: "nearest" });
  });
});

document.addEventListener("alpine:init", () => {
  const folding = () => ({
    open: false,
    toggle() { this.open = !this.open; },
    close() { this.open = false; },
  });
  Alpine.data("menu", folding);
  Alpine.data("drawer", () => ({
    open: false,
    toggle() {
      this.open = !this.open;
      document.getElementById("side").classList.toggle("is-open", this.open);
    },
  }));
});
