/* The theme, light, night or as the system says, and how close the lines of a sheet stand: set
   before the first paint. */
(() => {
  const stored = (name) => {
    try { return localStorage.getItem(name); } catch { return null; }
  };
  const system = matchMedia("(prefers-color-scheme: dark)").matches ? "night" : "light";
  document.documentElement.dataset.theme = stored("teapot-theme") || system;
  document.documentElement.dataset.room = stored("teapot-room") || "compact";
})();
