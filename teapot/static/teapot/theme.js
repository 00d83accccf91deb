/* The theme: light, night, or as the system says; and how close the lines of a sheet
   stand. Set before the first paint. */
(() => {
  const root = document.documentElement;
  const system = matchMedia("(prefers-color-scheme: dark)");
  const stored = () => {
    try { return localStorage.getItem("teapot-theme"); } catch { return null; }
  };
  const show = (theme) => { root.dataset.theme = theme; };
  show(stored() || (system.matches ? "night" : "light"));
  try { root.dataset.room = localStorage.getItem("teapot-room") || "compact"; } catch { root.dataset.room = "compact"; }
  document.addEventListener("alpine:init", () => {
    Alpine.data("room", () => ({
      roomy: root.dataset.room === "roomy",
      get label() { return this.roomy ? "Compact" : "Roomy"; },
      toggle() {
        this.roomy = !this.roomy;
        root.dataset.room = this.roomy ? "roomy" : "compact";
        try { localStorage.setItem("teapot-room", root.dataset.room); } catch { /* private window */ }
      },
    }));
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
