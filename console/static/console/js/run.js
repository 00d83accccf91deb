/* The run of lines: what is new is shown, in its place, and what others changed. */
document.addEventListener("DOMContentLoaded", () => {
  const run = document.getElementById("run");
  if (!run) return;
  const scroller = document.getElementById("scroll");
  const EVERY = 4000, CHUNK = 60;
  const PAUSES = [0, 1000, 3000, 9000, 27000]; // before answers that were late are asked for again

  const toFoot = () => { scroller.scrollTop = scroller.scrollHeight; };
  toFoot();
  document.fonts?.ready.then(toFoot);
  const isAtFoot = () => scroller.scrollHeight - scroller.scrollTop - scroller.clientHeight < 60;

  // the entry below grows and shrinks with what is typed: the last line stays in sight
  let wasAtFoot = true;
  scroller.addEventListener("scroll", () => { wasAtFoot = isAtFoot(); });
  new ResizeObserver(() => { if (wasAtFoot) toFoot(); }).observe(scroller);

  /** What makes lines higher leaves the last one in sight, where it was. */
  teapot.stayAtFoot = (act) => {
    const stays = isAtFoot();
    act();
    if (stays) toFoot();
  };

  function putInPlace(line) {
    const focused = line.contains(document.activeElement) ? document.activeElement : null;
    line.remove();
    const lines = [...run.querySelectorAll(":scope > .line")];
    // nearly always at the foot, so looked for from there
    let at = lines.length;
    while (at && Number(lines[at - 1].dataset.place) > Number(line.dataset.place)) at -= 1;
    if (at) lines[at - 1].after(line);
    else if (lines.length) lines[0].before(line);
    else run.append(line);
    focused?.focus({ preventScroll: true });
  }

  function place(line) {
    const here = document.getElementById(line.id);
    const isMoved = !here || here.dataset.place !== line.dataset.place;
    if (here) {
      teapot.morph(here, line);
      teapot.refreshWorkings(here);
    }
    if (isMoved) putInPlace(here || line);
  }

  /** Shows the lines of a reply; returns their numbers. */
  function show(html) {
    const stays = isAtFoot();
    const shown = new Set();
    const reply = teapot.fragment(html);
    for (const gone of reply.querySelectorAll("[data-gone]")) {
      const line = document.getElementById(`line-${gone.dataset.gone}`);
      if (line && teapot.isMendedIn(line)) teapot.mendedIsGone();
      line?.remove();
    }
    for (const line of reply.querySelectorAll(".line")) {
      shown.add(line.dataset.number);
      place(line);
    }
    const hasLines = Boolean(run.querySelector(".line"));
    document.getElementById("blank").hidden = hasLines;
    if (hasLines) document.getElementById("tries")?.remove();
    if (stays) toFoot();
    if (reply.querySelector("[data-waiting]") || run.querySelector("[data-waiting]")) workOut();
    return shown;
  }

  const numbersWaiting = () => [...run.querySelectorAll(":scope > .line[data-waiting]")].reverse()
    .map((line) => line.dataset.number);

  /* Asks again for answers that could not be worked out in time, the last ones first:
     fewer at once where none came, and after a while once more. */
  let working = false;
  async function workOut() {
    if (working) return;
    working = true;
    for (const pause of PAUSES) {
      if (pause) await new Promise((done) => { setTimeout(done, pause); });
      await workOutOnce();
      if (!numbersWaiting().length) break;
    }
    working = false;
  }

  async function workOutOnce() {
    const late = new Set();
    let size = CHUNK;
    while (true) {
      const batch = numbersWaiting().filter((number) => !late.has(number)).slice(0, size);
      if (!batch.length) return;
      const reply = await teapot.post("/lines/refresh", { since: run.dataset.revision, numbers: batch });
      if (!reply?.ok) return;
      show(await reply.text());
      const still = new Set(numbersWaiting());
      if (!batch.every((number) => still.has(number))) continue;
      if (size === 1) late.add(batch[0]);
      size = Math.ceil(size / 4);
    }
  }
  run.addEventListener("click", (event) => { if (event.target.closest("[data-work-out]")) workOut(); });

  /** Shows what a reply to a change brings; true where the change was made. */
  teapot.take = async (reply, { stay = true } = {}) => {
    if (!reply?.ok) {
      teapot.say(reply ? "The server could not do this." : "The connection is lost: nothing was changed.");
      return false;
    }
    const html = await reply.text();
    if (reply.headers.has("X-Refused")) {
      const said = teapot.fragment(html).querySelector(".asks label, .error").firstChild.textContent;
      teapot.say(reply.headers.has("X-Asks") ? `This asks: ${said} Type the line again to reply.` : said);
      return false;
    }
    return teapot.takeNews(html, reply.headers, stay);
  };

  teapot.takeNews = (html, headers, stay) => {
    if (headers.has("X-Handbook")) teapot.openHandbook(decodeURIComponent(headers.get("X-Handbook")));
    if (headers.has("X-Run")) teapot.askToRun(decodeURIComponent(headers.get("X-Run")));
    if (headers.has("X-Go")) { location.assign(headers.get("X-Go")); return true; }
    if (headers.has("X-Reload")) { location.reload(); return true; }
    const revision = headers.get("X-Revision"), since = run.dataset.revision;
    let shown = new Set();
    if (Number(revision) >= Number(run.dataset.revision)) {
      shown = show(html);
      run.dataset.revision = revision;
    }
    if (!stay) toFoot();
    if (headers.has("X-Stale")) freshen(since, shown);
    teapot.showQuantities();
    return true;
  };

  /* Answers that a change elsewhere has moved: those in sight come first, and those
     that came with the change itself are shown already. */
  async function freshen(since, shown) {
    const sight = scroller.getBoundingClientRect();
    const lines = [...run.querySelectorAll(":scope > .line")].reverse()
      .filter((line) => !shown.has(line.dataset.number));
    const far = (line) => {
      const box = line.getBoundingClientRect();
      return Math.max(0, sight.top - box.bottom, box.top - sight.bottom);
    };
    const numbers = lines.map((line) => [far(line), line.dataset.number])
      .sort((one, other) => one[0] - other[0]).map(([, number]) => number);
    for (let at = 0; at < numbers.length; at += CHUNK) {
      const reply = await teapot.post("/lines/refresh", { since, numbers: numbers.slice(at, at + CHUNK) });
      if (!reply?.ok) return;
      show(await reply.text());
    }
    teapot.showFlags();
  }

  async function lookForNews() {
    if (document.hidden) return;
    try {
      const reply = await fetch(`${teapot.page().url}/lines?since=${run.dataset.revision}`);
      if (reply.status === 200) teapot.takeNews(await reply.text(), reply.headers, !isAtFoot());
    } catch { /* no connection: asked again later */ }
  }
  setInterval(lookForNews, EVERY);
  if (numbersWaiting().length) workOut();
  document.addEventListener("visibilitychange", lookForNews);

  // earlier lines come in above without moving what is being read
  let height = 0;
  run.addEventListener("htmx:beforeSwap", () => { height = scroller.scrollHeight - scroller.scrollTop; });
  run.addEventListener("htmx:afterSettle", () => {
    scroller.scrollTop = scroller.scrollHeight - height;
    teapot.showFlags();
    if (numbersWaiting().length) workOut();
  });

  // -- undo and redo -----------------------------------------------------------

  async function replay(what) {
    const reply = await teapot.post(`/${what}`);
    if (reply?.status === 204) return teapot.say(`There is nothing to ${what}.`);
    if (await teapot.take(reply)) teapot.say(`${what === "undo" ? "Undone" : "Done again"}: ${reply.headers.get("X-Label")}`);
  }
  teapot.undo = () => replay("undo");
  teapot.redo = () => replay("redo");
  document.getElementById("undo").addEventListener("click", teapot.undo);
  document.getElementById("redo").addEventListener("click", teapot.redo);
});
