/* The entry: typing, its preview, Enter, and what comes back. */
document.addEventListener("DOMContentLoaded", () => {
  const area = document.getElementById("entry");
  if (!area) return;
  const run = document.getElementById("run");
  const preview = document.getElementById("preview");
  const refusal = document.getElementById("refusal");
  const waiting = document.getElementById("waiting");
  const draftKey = `teapot-draft-${teapot.page().sheet}`;
  const outbox = new teapot.Outbox(teapot.page().sheet);
  let stale = false; // whether a reading that still arrives would be of no use
  let lost = null; // the line that stands in the entry because the connection was lost

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
    try { localStorage.setItem(draftKey, area.value); } catch { /* private window */ }
  }

  function quiet() {
    refusal.replaceChildren();
    document.getElementById("backdrop").replaceChildren();
    area.removeAttribute("aria-invalid");
  }

  area.addEventListener("input", () => {
    quiet();
    if (lost && area.value !== lost.text) { outbox.drop(lost); lost = null; }
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
    if (lost && lost.text === text) return outbox.wake();
    teapot.closeCompletions();
    write("");
    teapot.typedNow(text);
    outbox.put(text);
  }

  function drop() {
    if (!area.value && teapot.closeHandbook()) return;
    if (lost) { outbox.drop(lost); lost = null; }
    if (area.value.trim()) teapot.typedNow(area.value);
    write("");
  }

  // -- replies ------------------------------------------------------------------

  /* A line that stood in the entry for want of a connection has gone. */
  function free(item) {
    if (lost !== item) return;
    lost = null;
    if (area.value === item.text) write("");
  }

  outbox.on.apart = free;

  outbox.on.kept = (item, html, headers) => {
    free(item);
    if (!area.value) quiet();
    teapot.takeNews(html, headers, Boolean(item.below));
  };

  outbox.on.refused = (item, html, headers) => {
    lost = lost === item ? null : lost;
    const isFree = !area.value.trim() || area.value === item.text;
    if (!isFree) return putAside(item, html);
    const goesOn = headers.get("X-Refused") === "unfinished";
    write(goesOn ? `${item.text}\n` : item.text);
    stale = true;
    preview.replaceChildren();
    const reply = teapot.fragment(html);
    reply.querySelector("template")?.remove();
    refusal.replaceChildren(reply);
    const error = refusal.firstElementChild;
    error.classList.toggle("goes-on", goesOn);
    if (!goesOn) point(error);
  };

  /* The line's question, with a field for the reply; what comes behind it waits. */
  outbox.on.asks = (item, html) => {
    free(item);
    const row = teapot.element("li", { className: "asking" },
      teapot.element("code", { textContent: item.text }), teapot.fragment(html));
    waiting.append(row);
    teapot.askIn(row, (reply) => { row.remove(); outbox.reply(reply); area.focus(); }, () => {
      row.remove();
      outbox.drop(item);
      if (area.value.trim()) area.focus(); else write(item.text);
      outbox.send();
    });
    row.scrollIntoView({ block: "nearest" });
  };

  /* Marks the bad part; a bad name is selected, so that typing goes on with another. */
  function point(error) {
    const start = teapot.unitsOf(area.value, Number(error.dataset.start));
    const end = teapot.unitsOf(area.value, Number(error.dataset.end));
    area.setAttribute("aria-invalid", "true");
    teapot.mark([[start, Math.max(end, start + 1), "bad"]]);
    if (error.dataset.code === "bad-name") area.setSelectionRange(start, end);
  }

  /* The person has typed on meanwhile: the refused line waits beside it. */
  function putAside(item, html) {
    const again = teapot.element("button", { type: "button", className: "mend", textContent: "mend it" });
    const said = teapot.fragment(html);
    said.querySelector("template")?.remove();
    const row = teapot.element("li", { className: "aside-line" },
      teapot.element("code", { textContent: item.text }), said, again);
    again.addEventListener("click", () => { row.remove(); write(item.text); });
    waiting.append(row);
  }

  outbox.on.lost = (item, status) => {
    const said = teapot.element("p", {
      className: "error", textContent: status
        ? "The server could not take this line. It is kept here and is sent again by itself."
        : "The connection is lost. This line is kept here and is sent again by itself.",
    });
    said.dataset.testid = "error";
    if (!area.value.trim() || area.value === item.text) {
      if (area.value !== item.text) {
        lost = null;
        write(item.text);
      }
      lost = item;
    }
    refusal.replaceChildren(said);
  };

  outbox.on.changed = (items) => {
    waiting.querySelectorAll(".on-its-way").forEach((row) => row.remove());
    for (const item of items) {
      if (item === lost || item === outbox.asking) continue;
      waiting.append(teapot.element("li", { className: "on-its-way" },
        teapot.element("code", { textContent: item.text })));
    }
    document.getElementById("blank").hidden = Boolean(run.querySelector(".line")) || items.length > 0;
  };

  teapot.send = (text, below) => outbox.put(text, below);

  // -- things to click --------------------------------------------------------------

  document.addEventListener("click", (event) => {
    const mend = event.target.closest("[data-mend]");
    if (mend && !mend.closest(".line")) return write(mend.dataset.mend);
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
  outbox.on.changed(outbox.items);
  outbox.send();
});
