/* The theme: light, night, or as the system says. Set before the first paint. */
(() => {
  const root = document.documentElement;
  const system = matchMedia("(prefers-color-scheme: dark)");
  const stored = () => {
    try { return localStorage.getItem("teapot-theme"); } catch { return null; }
  };
  const show = (theme) => { root.dataset.theme = theme; };
  show(stored() || (system.matches ? "night" : "light"));
  document.addEventListener("alpine:init", () => {
    Alpine.data("theme", () => ({
      night: root.dataset.theme === "night",
      get label() { return this.night ? "Light" : "Night"; },
      toggle() {
        this.night = !this.night;
        show(this.night ? "night" : "light");
        try { localStorage.setItem("teapot-theme", root.dataset.theme); } catch { /* private window */ }
      },
    }));
  });
})();
