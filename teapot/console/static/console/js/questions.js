/* Questions of a line or a procedure, and the fields for their replies. */

/** Makes the field of a question in ``box`` go: Enter replies, Escape leaves it. */
export function askIn(box, reply, leave) {
  const field = box.querySelector(".asks input");
  field.form.addEventListener("submit", (event) => event.preventDefault());
  field.addEventListener("keydown", (event) => {
    event.stopPropagation();
    if (event.key === "Escape") leave();
    if (event.key !== "Enter" || !field.value.trim()) return;
    event.preventDefault();
    reply(field.value);
  });
  field.focus();
  field.select();
}

/** Questions in a form: Enter goes on to the next one, and from the last it sends them. */
export function oneAfterAnother(form) {
  form.addEventListener("keydown", (event) => {
    if (event.key !== "Enter" || event.target.name !== "reply") return;
    const fields = [...form.querySelectorAll("[name=reply]")];
    const next = fields[fields.indexOf(event.target) + 1];
    if (!next) return;
    event.preventDefault();
    next.focus();
    next.select();
  });
}
