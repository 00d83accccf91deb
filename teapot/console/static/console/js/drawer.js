/* On a narrow screen the quantities are a drawer. */
import Alpine from "../../teapot/dist/alpine.js";

Alpine.data("drawer", () => ({
  open: false,
  toggle() {
    this.open = !this.open;
    document.getElementById("side").classList.toggle("is-open", this.open);
  },
}));
