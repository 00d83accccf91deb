/* A procedure is asked for its values in a dialog, and run into the sheet. */
import { fragment, say } from "../../teapot/js/dom.js";
import { takeNews } from "./news.js";
import { oneAfterAnother } from "./questions.js";
import { refusalIn } from "./refusal.js";
import { run } from "./run.js";
import { newToken, post } from "./server.js";

const dialog = document.getElementById("run-dialog");
const asks = document.getElementById("run-asks");

async function ask(name) {
  const reply = await fetch(`${dialog.dataset.questions}?name=${encodeURIComponent(name)}`).catch(() => null);
  if (!reply?.ok) return say("The procedure could not be loaded.");
  asks.replaceChildren(fragment(await reply.text()));
  dialog.showModal();
  (asks.querySelector("[name=reply]") || asks.querySelector("button"))?.focus();
  asks.querySelector("[name=reply]")?.select();
}
document.addEventListener("asks-to-run", (event) => ask(event.detail.value));

oneAfterAnother(asks);

asks.addEventListener("submit", async (event) => {
  event.preventDefault();
  const form = event.target;
  form.dataset.token ||= newToken();
  const fields = new FormData(form);
  const reply = await post("/run", {
    procedure: form.dataset.procedure, token: form.dataset.token, since: run.dataset.revision,
    key: fields.getAll("key"), reply: fields.getAll("reply"),
  });
  const said = form.querySelector(".error");
  if (!reply) { said.textContent = "No connection: nothing was run."; return; }
  const brought = fragment(await reply.text());
  if (!reply.ok || refusalIn(brought)) {
    said.textContent = brought.textContent.trim();
    form.dataset.token = newToken();
    return;
  }
  dialog.close();
  takeNews(brought, reply.headers, false);
});
asks.addEventListener("click", (event) => { if (event.target.closest("[data-mend]")) dialog.close(); });
