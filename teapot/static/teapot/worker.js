/* Between the pages and the server: without a connection, pages that were seen come from here, as
   they were, and the handbook as a whole.  Nothing is sent from here, and whatever comes from the
   server comes first.  VERSION, HANDBOOK, NOTHING_KEPT and its FILES are told by the server. */
const OF_ALL = `all-${VERSION}`, OF_A_PERSON = "pages";
const MOST_PAGES = 40;
const PAGES = /^\/((sheets|procedures|records|tables)\/[\da-f-]+|shelf\/|handbook\/.*)$/;
const SHEET = /^\/sheets\/[\da-f-]+$/;
const UNREACHED = [502, 503, 504]; // said by the proxy in front of a server that is not there
const GONE = [403, 404, 410];

addEventListener("install", (event) => {
  skipWaiting();
  // what changes something, and what is asked for while one types, never waits for this
  event.addRoutes?.([
    { condition: { requestMethod: "POST", urlPattern: "/sheets/*" }, source: "network" },
    { condition: { urlPattern: "/sheets/*/*" }, source: "network" },
  ]).catch(() => {});
  event.waitUntil(caches.open(OF_ALL).then((kept) => kept.addAll([HANDBOOK, NOTHING_KEPT, ...FILES])));
});

addEventListener("activate", (event) => event.waitUntil((async () => {
  for (const name of await caches.keys()) if (name !== OF_ALL && name !== OF_A_PERSON) await caches.delete(name);
  await clients.claim();
})()));

addEventListener("fetch", (event) => {
  const { request } = event, { origin, pathname } = new URL(request.url);
  if (origin !== location.origin) return;
  if (request.method === "POST" && pathname.startsWith("/account/")) {
    event.waitUntil(caches.delete(OF_A_PERSON)); // whoever comes next may be somebody else
  }
  if (request.method !== "GET") return;
  if (request.mode === "navigate" || pathname === HANDBOOK) event.respondWith(page(event, pathname));
  else if (pathname.startsWith("/static/")) event.respondWith(file(event));
});

addEventListener("message", (event) => event.waitUntil((async () => {
  const { files = [], page: wanted } = event.data;
  const kept = await caches.open(OF_ALL);
  for (const one of files) if (!await kept.match(one)) await kept.add(one).catch(nothing);
  if (wanted && PAGES.test(wanted)) await fetch(wanted).then((reply) => keep(wanted, reply)).catch(nothing);
})()));

const nothing = () => null; // no connection, or no room in the browser

async function page(event, pathname) {
  const reply = await fetch(event.request).catch(nothing);
  if (!reply || UNREACHED.includes(reply.status)) return await asKept(pathname) ?? reply ?? missing(pathname);
  if (PAGES.test(pathname)) event.waitUntil(keep(pathname, reply.clone()).catch(nothing));
  return reply;
}

/* A page as it is now: the ones seen last are kept. */
async function keep(pathname, reply) {
  const kept = await caches.open(OF_A_PERSON);
  if (GONE.includes(reply.status)) await kept.delete(pathname);
  if (!reply.ok || reply.redirected) return;
  const headers = new Headers(reply.headers);
  headers.set("X-Kept-At", new Date().toISOString());
  await kept.delete(pathname); // it comes behind all others
  await kept.put(pathname, new Response(await reply.blob(), { headers }));
  const keys = await kept.keys();
  for (const key of keys.slice(0, Math.max(0, keys.length - MOST_PAGES))) await kept.delete(key);
}

/* A page that was kept, which says of when it is. */
async function asKept(pathname) {
  const found = await (await caches.open(OF_A_PERSON)).match(pathname);
  if (!found) return null;
  const html = await found.text();
  const marked = html.replace("<html ", `<html data-kept-at="${found.headers.get("X-Kept-At")}" `);
  return new Response(marked, { headers: found.headers });
}

async function missing(pathname) {
  const kept = await caches.open(OF_ALL);
  const entry = /^\/handbook\/([\w-]*)$/.exec(pathname);
  if (pathname === HANDBOOK) return await kept.match(HANDBOOK) ?? Response.error();
  if (entry && await kept.match(HANDBOOK)) return Response.redirect(`${HANDBOOK}#${entry[1]}`);
  if (pathname === "/") {
    const sheets = (await (await caches.open(OF_A_PERSON)).keys()).map((one) => new URL(one.url).pathname).filter((one) => SHEET.test(one));
    if (sheets.length) return Response.redirect(sheets.at(-1));
  }
  return await kept.match(NOTHING_KEPT) ?? Response.error();
}

async function file(event) {
  const kept = await caches.open(OF_ALL);
  const reply = await fetch(event.request).catch(nothing);
  if (!reply) return await kept.match(event.request) ?? Response.error();
  if (reply.ok) event.waitUntil(kept.put(event.request, reply.clone()).catch(nothing));
  return reply;
}
