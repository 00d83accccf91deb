/* The page as the browser keeps it for when the server cannot be reached; worker.js does that. */
const QUIET = 10000; // milliseconds without a change, behind which the page is kept anew
const LOOK = 4000;
const worker = navigator.serviceWorker; // not there where the server is reached without HTTPS
const run = document.getElementById("run");
let timer = null;

const tell = (what) => worker.controller?.postMessage(what);

async function begin() {
  const isNew = !worker.controller;
  await worker.register("/worker.js");
  const { active } = await worker.ready;
  if (!isNew) return;
  // what this page was made of came before it was there
  const files = performance.getEntriesByType("resource").map((one) => new URL(one.name))
    .filter((one) => one.origin === location.origin && one.pathname.startsWith("/static/"));
  active.postMessage({ files: files.map(String), page: location.pathname });
}

function keep() {
  clearTimeout(timer);
  if (timer) tell({ page: location.pathname });
  timer = null;
}

function sayIt() {
  const at = document.documentElement.dataset.keptAt;
  const said = document.getElementById("as-kept");
  if (!at || !said) return;
  const when = new Date(at).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });
  const later = run ? " What you type is kept in this browser and sent when there is one." : "";
  said.querySelector("span").textContent = `There is no connection: this page is as it was on ${when}.${later}`;
  said.hidden = false;
  const looking = setInterval(async () => {
    const reply = await fetch("/worker.js", { method: "HEAD" }).catch(() => null);
    if (!reply?.ok) return;
    clearInterval(looking);
    if (run) said.hidden = true; // it brings itself up to date
    else said.querySelector("span").textContent = "The connection is back.";
  }, LOOK);
}

sayIt();
if (worker) {
  addEventListener("load", () => begin().catch(() => {}));
  if (run) {
    const seen = new MutationObserver(() => { clearTimeout(timer); timer = setTimeout(keep, QUIET); });
    seen.observe(run, { attributes: true, attributeFilter: ["data-revision"] });
  }
  document.addEventListener("visibilitychange", () => { if (document.hidden) keep(); });
}
