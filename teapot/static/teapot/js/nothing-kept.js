/* Without a connection: which pages the browser has. */
const list = document.getElementById("pages");
const kept = await caches.open("pages").catch(() => null);
for (const request of (await kept?.keys() ?? []).reverse()) {
  const html = await (await kept.match(request)).text();
  const title = new DOMParser().parseFromString(html, "text/html").title.replace(/ · Teapot$/, "");
  const link = Object.assign(document.createElement("a"), { href: request.url, textContent: title });
  const item = document.createElement("li");
  item.append(link);
  list.append(item);
}
document.getElementById("none").hidden = list.children.length > 0;
