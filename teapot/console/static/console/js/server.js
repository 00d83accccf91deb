/* What is sent to the server, and what it is told of the page. */
import { csrfToken } from "../../teapot/js/dom.js";
import { checked } from "../../teapot/js/who.js";

const MOST_SHOWN = 120; // lines of which is told that they are shown
const PATIENCE = 40000; // milliseconds: as long as a line may take on a busy machine, and its turn before
let last = null; // the request that is under way, if one is

/** What the page is told with: its sheet and its address. */
export const page = () => document.getElementById("page").dataset;

/** What the page has: of which revision it is, which lines it shows, the last ones first, and
    of which revision its quantities are. */
function seen() {
  const run = document.getElementById("run");
  const lines = [...run.querySelectorAll(":scope > .line")].slice(-MOST_SHOWN);
  return {
    since: run.dataset.revision,
    shows: lines.map((line) => line.dataset.number).join(),
    listed: document.getElementById("quantities").dataset.revision || "",
  };
}

let may = page().may; // what is typed is read by this token, which each reply renews

function renewed(reply) {
  may = reply.headers.get("X-May") || may;
  return reply;
}

document.addEventListener("htmx:configRequest", (event) => {
  if (may && event.detail.path.endsWith("/preview")) event.detail.headers["X-May"] = may;
});
document.addEventListener("htmx:afterRequest", (event) => { may = event.detail.xhr.getResponseHeader("X-May") || may; });

async function send(path, fields, options) {
  const body = new URLSearchParams();
  for (const [name, value] of Object.entries({ ...seen(), ...fields })) {
    for (const one of [value].flat()) body.append(name, one);
  }
  const signal = AbortSignal.timeout(PATIENCE);
  return fetch(page().url + path, { method: "POST", body, headers: { "X-CSRFToken": csrfToken() }, signal, ...options }).then(checked).then(renewed);
}

/** Sends a form to a path under the sheet's own; the reply, null without a connection.  One goes
    after another, so that no reply is older than what is shown. */
export function post(path, fields = {}, options = {}) {
  const sent = (last ? last.then(() => send(path, fields, options)) : send(path, fields, options)).catch(() => null);
  last = sent;
  sent.then(() => { if (last === sent) last = null; });
  return sent;
}

/** What stands at a path under the sheet's own, null where it could not be had. */
export async function get(path) {
  const reply = await fetch(page().url + path).then(checked).catch(() => null);
  return reply?.ok ? reply.text() : null;
}

/** A token by which a line is kept once, however often it is sent. */
export function newToken() {
  if (crypto.randomUUID) return crypto.randomUUID();
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, "$1-$2-$3-$4-$5");
}
