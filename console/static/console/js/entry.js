/* The entry: typing, its preview, Enter, and what comes back. */
document.addEventListener("DOMContentLoaded", () => {
  const area = document.getElementById("entry");
  if (!area) return;
  const run = document.getElementById("run");
  const preview = document.getElementById("preview");
  const refusal = document.getElementById("refusal");
  const backdrop = document.getElementById("backdrop");
  const waiting = document.getElementById("waiting");
  const dock = document.getElementById("entry-form");
  const csrf = JSON.parse(document.body.getAttribute("hx-headers"))["X-CSRFToken"];
  const draftKey = `teapot-draft-${dock.dataset.sheet}`;
  const outbox = new teapot.Outbox(dock.dataset.sheet, run.dataset.url, csrf);
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

  function keepDraft() {
    try { localStorage.setItem(draftKey, area.value); } catch { /* private window */ }
  }

  function quiet() {
    refusal.replaceChildren();
    backdrop.replaceChildren();
    area.removeAttribute("aria-invalid");
  }

  area.addEventListener("input", () => {
    quiet();
    if (lost && area.value !== lost.text) { outbox.drop(lost); lost = null; }
    fit();
    keepDraft();
    stale = false;
    if (area.value.trim()) htmx.trigger(area, "preview");
    else preview.replaceChildren();
  });

  // a reading that comes after its line was sent is of no use any more
  preview.addEventListener("htmx:beforeSwap", (event) => {
    if (stale || !area.value.trim()) event.detail.shouldSwap = false;
  });

  // -- Enter and Escape -------------------------------------------------------

  area.addEventListener("keydown", (event) => {
    if (event.isComposing) return;
    if (event.key === "Enter" && !event.shiftKey && !event.ctrlKey && !event.altKey) {
      event.preventDefault();
      submit();
    } else if (event.key === "Escape") {
      event.preventDefault();
      if (lost) { outbox.drop(lost); lost = null; }
      write("");
    }
  });

  function submit() {
    const text = area.value;
    if (!text.trim()) return;
    if (lost && lost.text === text) return outbox.wake();
    write("");
    outbox.put(text);
  }

  // -- replies ------------------------------------------------------------------

  outbox.on.kept = (item, html, headers) => {
    if (lost === item) {
      lost = null;
      if (area.value === item.text) write("");
    }
    quiet();
    teapot.showNewLines(html, headers.get("X-Revision"));
  };

  outbox.on.refused = (item, html, headers) => {
    lost = lost === item ? null : lost;
    const isFree = !area.value.trim() || area.value === item.text;
    if (!isFree) return putAside(item, html);
    const goesOn = headers.get("X-Refused") === "unfinished";
    write(goesOn ? `${item.text}\n` : item.text);
    stale = true;
    const reply = teapot.fragment(html);
    const marked = reply.querySelector("template[data-backdrop]");
    if (!goesOn) {
      backdrop.replaceChildren(marked.content.cloneNode(true));
      area.setAttribute("aria-invalid", "true");
    }
    marked.remove();
    preview.replaceChildren();
    refusal.replaceChildren(reply);
    refusal.firstElementChild.classList.toggle("goes-on", goesOn);
  };

  /* The person has typed on meanwhile: the refused line waits beside it. */
  function putAside(item, html) {
    const row = document.createElement("li");
    const again = document.createElement("button");
    row.className = "aside-line";
    row.append(Object.assign(document.createElement("code"), { textContent: item.text }));
    again.type = "button";
    again.className = "mend";
    again.textContent = "mend it";
    again.addEventListener("click", () => { row.remove(); write(item.text); });
    const said = teapot.fragment(html);
    said.querySelector("template")?.remove();
    row.append(said, again);
    waiting.append(row);
  }

  outbox.on.lost = (item, status) => {
    const said = Object.assign(document.createElement("p"), {
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
      if (item === lost) continue;
      const row = document.createElement("li");
      row.className = "on-its-way";
      row.append(Object.assign(document.createElement("code"), { textContent: item.text }));
      waiting.append(row);
    }
    document.getElementById("blank").hidden = run.childElementCount > 0 || items.length > 0;
  };

  // -- things to click --------------------------------------------------------------

  document.addEventListener("click", (event) => {
    const mend = event.target.closest("[data-mend]");
    if (mend) return write(mend.dataset.mend);
    const put = event.target.closest("[data-put]");
    if (put) return area.value ? teapot.insert(area, put.dataset.put) : write(put.dataset.put);
    const line = event.target.closest(".line");
    if (line && event.target.closest("[data-again]")) write(line.dataset.input);
  });

  // typing anywhere goes into the entry
  document.addEventListener("keydown", (event) => {
    const free = !event.target.closest("input, textarea, button, a, summary, [contenteditable]");
    if (free && event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey) area.focus();
  });

  try { if (!area.value) area.value = localStorage.getItem(draftKey) || ""; } catch { /* private window */ }
  if (area.value) area.dispatchEvent(new Event("input", { bubbles: true }));
  outbox.on.changed(outbox.items);
  outbox.send();
});
