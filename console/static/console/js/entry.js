/* The entry: typing, its preview, Enter, and what comes back. */
document.addEventListener("DOMContentLoaded", () => {
  const area = document.getElementById("entry");
  if (!area) return;
  const run = document.getElementById("run");
  const preview = document.getElementById("preview");
  const refusal = document.getElementById("refusal");
  const draftKey = `teapot-draft-${teapot.page().sheet}`;
  const outbox = new teapot.Outbox(teapot.page().sheet);
  let stale = false; // whether a reading that still arrives would be of no use
  let returned = null; // a refused line that is back in the entry: { item, said, until }
  const FLOW = 400; // milliseconds in which a key belongs to what was being typed before

  // -- the entry's own looks ------------------------------------------------

  function fit() {
    area.style.height = "auto";
    area.style.height = `${area.scrollHeight}px`;
  }

  function write(text, caret = text.length) {
    area.value = text;
    area.setSelectionRange(caret, caret);
    area.dispatchEvent(new Event("input", { bubbles: true }));
    area.focus();
  }
  teapot.write = write;

  function keepDraft() {
    if (teapot.isMending()) return;
    try { localStorage.setItem(draftKey, area.value); } catch { /* private window */ }
  }

  function quiet() {
    refusal.replaceChildren();
    document.getElementById("backdrop").replaceChildren();
    area.removeAttribute("aria-invalid");
  }

  area.addEventListener("input", () => {
    quiet();
    fit();
    keepDraft();
    stale = false;
    if (area.value.trim()) return htmx.trigger(area, "preview");
    preview.replaceChildren();
    teapot.showCompletions([]);
    document.getElementById("hint").hidden = true;
  });

  // a reading that comes after its line was sent is of no use any more
  preview.addEventListener("htmx:beforeSwap", (event) => {
    if (stale || !area.value.trim()) event.detail.shouldSwap = false;
  });
  preview.addEventListener("htmx:afterSwap", () => {
    const made = document.getElementById("completions-made");
    // an older reply leaves the list as it is: the next one is on its way
    if (document.getElementById("company")?.dataset.for === area.value) {
      teapot.showCompletions(made ? [...made.content.children] : []);
    }
  });

  // -- keys ---------------------------------------------------------------------

  area.addEventListener("keydown", (event) => {
    if (event.isComposing) return;
    if (returned) giveWay(event);
    if (teapot.completionKey(event)) return event.preventDefault();
    const plain = !event.ctrlKey && !event.altKey && !event.metaKey;
    if (event.key === "Enter" && plain && !event.shiftKey) submit();
    else if (event.key === "Escape") drop();
    else if (event.key === "ArrowUp" && event.altKey) teapot.widen();
    else if (event.key === "ArrowUp" && event.ctrlKey) teapot.openHistory();
    else if (event.key === "PageUp" && plain) teapot.toLines();
    else if (event.key.toLowerCase() === "z" && event.ctrlKey && !area.value) (event.shiftKey ? teapot.redo : teapot.undo)();
    else if (!(event.key === "(" && plain && teapot.wrap())
      && !(event.key === "ArrowUp" && plain && !event.shiftKey && teapot.walk(-1))
      && !(event.key === "ArrowDown" && plain && !event.shiftKey && teapot.walk(1))) return;
    event.preventDefault();
  });

  function submit() {
    const text = area.value;
    if (!text.trim()) return;
    teapot.closeCompletions();
    if (teapot.isMending()) return teapot.submitMending();
    write("");
    teapot.typedNow(text);
    outbox.put(text);
  }

  /* A key that comes too soon after a refused line is back in the entry belongs to the
     next line, which the person has begun meanwhile: the refused one is put aside. */
  function giveWay(event) {
    const { item, said, until } = returned;
    const isTyped = event.key.length === 1 && !event.ctrlKey && !event.altKey && !event.metaKey;
    if (isTyped && performance.now() < until && area.value === item.text) {
      write("");
      waiting.putAside(item.text, said());
    }
    if (event.key !== "Shift") returned = null;
  }

  function drop() {
    if (teapot.leaveMending()) return;
    if (!area.value && teapot.closeHandbook()) return;
    if (area.value.trim()) teapot.typedNow(area.value);
    write("");
  }

  // -- replies ------------------------------------------------------------------

  outbox.on.kept = (item, html, headers) => {
    if (!area.value && !teapot.isMending()) quiet();
    teapot.takeNews(html, headers, Boolean(item.below));
  };

  /* A refused line comes back into the entry if nothing else was begun there since it
     was sent; else it is put aside. */
  outbox.on.refused = (item, html, headers) => {
    const said = () => {
      const reply = teapot.fragment(html);
      reply.querySelector("template")?.remove();
      return reply;
    };
    const goesOn = headers.get("X-Refused") === "unfinished";
    const isFree = !area.value && !teapot.isMending() && item.tries === 1 && !outbox.items.length && !item.below;
    if (!isFree) return waiting.putAside(item.text, said());
    write(goesOn ? `${item.text}\n` : item.text);
    if (!goesOn) returned = { item, said, until: performance.now() + FLOW };
    showRefused(said());
    refusal.firstElementChild.classList.toggle("goes-on", goesOn);
    if (!goesOn) point(refusal.firstElementChild);
  };

  /* What is said against what is in the entry, in place of its reading. */
  function showRefused(said) {
    stale = true;
    preview.replaceChildren();
    refusal.replaceChildren(said);
  }
  teapot.refuse = (said) => {
    showRefused(said);
    if (said.matches(".error")) point(said);
  };

  /* Marks the bad part; a bad name is selected, so that typing goes on with another. */
  function point(error) {
    const start = teapot.unitsOf(area.value, Number(error.dataset.start));
    const end = teapot.unitsOf(area.value, Number(error.dataset.end));
    area.setAttribute("aria-invalid", "true");
    teapot.mark([[start, Math.max(end, start + 1), "bad"]]);
    if (error.dataset.code === "bad-name") area.setSelectionRange(start, end);
  }

  teapot.send = (text, below) => outbox.put(text, below);

  // -- things to click --------------------------------------------------------------

  document.addEventListener("click", (event) => {
    const mend = event.target.closest("[data-mend]");
    if (mend && (mend.closest("#entry-box") || !mend.closest(".line, #waiting"))) return write(mend.dataset.mend);
    const put = event.target.closest("[data-put]");
    if (!put) return;
    if (!area.value) return write(put.dataset.put);
    area.setRangeText(put.dataset.put, area.selectionStart, area.selectionEnd, "end");
    write(area.value, area.selectionEnd);
  });

  // typing anywhere goes into the entry
  document.addEventListener("keydown", (event) => {
    if (event.key === "/" && event.ctrlKey) {
      event.preventDefault();
      return document.getElementById("keys-dialog").showModal();
    }
    const free = !event.target.closest("input, textarea, button, a, summary, dialog, .line");
    if (!free || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key.length === 1 || event.key === "Escape") area.focus();
  });

  const setting = document.getElementById("sheet-form");
  setting.addEventListener("submit", (event) => event.preventDefault());
  setting.addEventListener("change", async (event) => {
    const field = event.target;
    const taken = await teapot.take(await teapot.post(`/settings/${field.name}`, { value: field.value }));
    if (!taken) setting.reset();
    else if (field.options) for (const option of field.options) option.defaultSelected = option.selected;
    else field.defaultValue = field.value;
    if (area.value.trim()) htmx.trigger(area, "preview");
  });

  try { if (!area.value) area.value = localStorage.getItem(draftKey) || ""; } catch { /* private window */ }
  const put = new URLSearchParams(location.search).get("put");
  if (put) {
    area.value = put;
    history.replaceState(null, "", location.pathname);
  }
  if (area.value) area.dispatchEvent(new Event("input", { bubbles: true }));
  const waiting = new teapot.Waiting(outbox);
  outbox.send();
});
