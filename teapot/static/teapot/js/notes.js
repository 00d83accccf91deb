/* What is typed into a form that is kept while one types goes off with the page, too: also what
   was typed in the moment before it is left. */
addEventListener("pagehide", () => {
  for (const form of document.querySelectorAll("form[data-kept-while-typed]")) {
    const field = form.querySelector("textarea");
    if (field.value !== field.defaultValue) navigator.sendBeacon(form.getAttribute("hx-post"), new FormData(form));
  }
});
