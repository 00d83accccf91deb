/* The dial: turned by mouse or keys, at the angle of a line or the one at the caret; what
   it shows is worked out by the server. */
document.addEventListener("DOMContentLoaded", () => {
  const dialog = document.getElementById("dial-dialog");
  const face = document.getElementById("dial-face");
  if (!dialog) return;
  const readout = document.getElementById("dial-readout");
  const snap = document.getElementById("dial-snap");
  const SPECIAL = [0, 30, 45, 60, 90, 120, 135, 150, 180, 210, 225, 240, 270, 300, 315, 330, 360];
  const NEAR = 3, CENTRE = 190;
  let degrees = 30;
  let wanted = null; // what is asked for next, while a reply is on its way
  let busy = false;

  async function ask(query) {
    if (busy) { wanted = query; return; }
    busy = true;
    const { line, ...angle } = query;
    const address = line ? `lines/${line}/pictures/dial` : `dial?${new URLSearchParams(angle)}`;
    const reply = await fetch(`${teapot.page().url}/${address}`).catch(() => null);
    if (reply?.ok) show(await reply.text());
    else teapot.say("The dial cannot be reached just now.");
    busy = false;
    if (wanted) { const next = wanted; wanted = null; ask(next); }
  }

  function show(html) {
    readout.innerHTML = html;
    const made = readout.querySelector("template");
    degrees = Number(made.dataset.degrees);
    face.replaceChildren(...made.content.firstElementChild.children);
    face.setAttribute("aria-valuenow", String(degrees));
    face.setAttribute("aria-valuetext", readout.querySelector("[data-use-angle]").dataset.useAngle);
  }

  const turnTo = (count) => {
    degrees = count;
    ask({ count: String(Number(count.toFixed(4))), unit: "deg" });
  };

  /** The angle typed at the caret: a number with its unit, or one that a sine reads. */
  function typedAngle(area) {
    const sheetUnit = document.querySelector("#sheet-form [name=angle]").value;
    const angles = /(\d{1,6}(?:\.\d{1,6})?)(?:\s*(°|(?:deg|rad|gon|turn)\b))?/g;
    for (const found of area.value.matchAll(angles)) {
      const start = found.index, end = start + found[0].length;
      if (area.selectionStart < start || area.selectionStart > end) continue;
      const isRead = /\b(sin|cos|tan|cot|sec|csc)\s*\(\s*$/.test(area.value.slice(0, start));
      if (!found[2] && !isRead) return null;
      return { start, end, count: found[1], unit: found[2] === "°" ? "deg" : found[2] || sheetUnit };
    }
    return null;
  }

  teapot.openDial = (line) => {
    const area = document.getElementById("entry");
    const typed = line ? null : typedAngle(area);
    // what the dial gives then takes its place
    if (typed) area.setSelectionRange(typed.start, typed.end);
    if (!dialog.open) dialog.showModal();
    if (line) ask({ line });
    else if (typed) ask({ count: typed.count, unit: typed.unit });
    else ask({ count: String(degrees), unit: "deg" });
    face.focus();
  };

  function use() {
    const text = readout.querySelector("[data-use-angle]")?.dataset.useAngle;
    if (!text) return;
    dialog.close();
    const area = document.getElementById("entry");
    area.setRangeText(text, area.selectionStart, area.selectionEnd, "end");
    teapot.write(area.value, area.selectionEnd);
  }

  /** The angle of a pointer, nearest to the one at hand so that it can go past 0. */
  function fromPointer(event) {
    const box = face.getBoundingClientRect();
    const scale = box.width / (2 * CENTRE);
    const x = (event.clientX - box.left) / scale - CENTRE;
    const y = CENTRE - (event.clientY - box.top) / scale;
    let found = (Math.atan2(y, x) * 180) / Math.PI;
    found += 360 * Math.round((degrees - found) / 360);
    if (!snap.checked) return Number(found.toFixed(1));
    const turn = 360 * Math.floor(found / 360);
    const special = SPECIAL.find((mark) => Math.abs(found - turn - mark) < NEAR);
    return special === undefined ? Math.round(found) : turn + special;
  }
  const within = (count) => Math.max(-360, Math.min(360, count));

  face.addEventListener("pointerdown", (event) => {
    face.setPointerCapture(event.pointerId);
    turnTo(within(fromPointer(event)));
  });
  face.addEventListener("pointermove", (event) => {
    if (!event.buttons) return;
    const found = within(fromPointer(event));
    if (found !== degrees) turnTo(found);
  });
  face.addEventListener("keydown", (event) => {
    const step = event.shiftKey ? 15 : 1;
    const ways = { ArrowLeft: step, ArrowUp: step, ArrowRight: -step, ArrowDown: -step };
    if (event.key in ways) {
      const base = event.shiftKey ? Math.round(degrees / 15) * 15 : degrees;
      turnTo(within(Number((base + ways[event.key]).toFixed(4))));
    } else if (event.key === "Home") turnTo(0);
    else if (event.key === "Enter") use();
    else return;
    event.preventDefault();
  });

  document.addEventListener("click", (event) => {
    const opener = event.target.closest("[data-picture=dial]");
    if (opener) return teapot.openDial(opener.dataset.of);
    if (event.target.closest("[data-use-angle]")) use();
  });
  document.addEventListener("keydown", (event) => {
    if (!event.altKey || event.key.toLowerCase() !== "a" || event.ctrlKey) return;
    event.preventDefault();
    teapot.openDial(event.target.closest(".line")?.querySelector("[data-picture=dial]")?.dataset.of);
  });
});
