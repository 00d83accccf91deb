/* A line mended where it stands: the entry itself goes there, with its reading, its
   completions, its card and its errors, and comes back when it is done.  What was half typed
   at the foot waits meanwhile. */
document.addEventListener("DOMContentLoaded", () => {
  const area = document.getElementById("entry");
  if (!area) return;
  const box = document.getElementById("entry-box");
  const home = document.getElementById("entry-home");
  const sign = document.getElementById("mending");
  const refusal = document.getElementById("refusal");
  const label = area.getAttribute("aria-label");
  let at = null; // { line, text, done, half }: where the entry is, and what waits at the foot

  /** The fields that tell the server where the line is that is being typed. */
  teapot.whereTyped = () => (at ? { [at.isNew ? "below" : "at"]: at.line.dataset.number } : {});
  teapot.isMending = () => Boolean(at);

  /** Brings the entry to a line with ``text`` in it; ``done`` sends what is entered and gives
      null, or what is said against it. */
  teapot.mendAt = (line, text, done, isNew = false) => {
    if (at) teapot.leaveMending();
    const half = area.value;
    at = { line, text, done, half, isNew };
    const place = teapot.element("div", { className: "in-place", id: "in-place" });
    place.dataset.testid = "in-place";
    if (isNew) line.append(place);
    else line.querySelector(".worked, .note-line").after(place);
    place.append(box);
    const number = line.dataset.number;
    sign.textContent = isNew ? `A line is typed below line ${number}. Escape leaves it.` : `Line ${number} is mended where it stands. Escape leaves it as it was.`;
    sign.hidden = false;
    area.setAttribute("aria-label", isNew ? "New line below" : "The line's text");
    // the caret goes behind the calculation, before a note
    const typed = line.querySelector(".typed code")?.textContent ?? "";
    teapot.write(text, !isNew && text.startsWith(typed) ? typed.length : text.length);
    place.scrollIntoView({ block: "nearest" });
  };

  function goHome() {
    home.append(box);
    document.getElementById("in-place")?.remove();
    sign.hidden = true;
    area.setAttribute("aria-label", label);
    const { line, half } = at;
    at = null;
    teapot.write(half);
    return line;
  }

  /** Leaves the line as it was. */
  teapot.leaveMending = () => {
    if (!at) return false;
    goHome().focus();
    return true;
  };

  /** The line is gone: what was typed for it stays, at the foot or in the history. */
  teapot.mendedIsGone = () => {
    const { line, text } = at;
    const typed = area.value;
    goHome();
    if (typed === text || !typed.trim()) return teapot.say(`Line ${line.dataset.number} was deleted elsewhere.`);
    teapot.typedNow(typed);
    if (!area.value) teapot.write(typed);
    teapot.say(`Line ${line.dataset.number} was deleted elsewhere. What you typed for it is ${area.value === typed ? "in the entry" : "one Up away"}.`);
  };
  teapot.isMendedIn = (node) => Boolean(at) && node.contains(box);

  /** Sends what is entered. */
  teapot.submitMending = async (replies = []) => {
    const { line, done } = at;
    const text = area.value;
    if (!text.trim()) return;
    const said = await done(text, replies);
    if (!at || at.line !== line) return;
    if (!said) {
      goHome();
      document.getElementById(`line-${line.dataset.number}`)?.focus();
      return;
    }
    teapot.refuse(said);
    if (said.matches(".asks")) {
      const taken = replies.slice(0, Number(said.dataset.taken));
      const leave = () => { said.remove(); area.focus(); };
      return teapot.askIn(refusal, (reply) => teapot.submitMending([...taken, reply]), leave);
    }
    document.getElementById("in-place").scrollIntoView({ block: "nearest" });
  };

  document.getElementById("preview").addEventListener("htmx:afterSettle", () => {
    if (at) document.getElementById("in-place").scrollIntoView({ block: "nearest" });
  });
});
