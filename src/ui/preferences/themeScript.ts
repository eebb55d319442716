import { THEME_KEY } from "./keys";

/** Run before the first paint: sets the theme, and follows the device while none is chosen. */
export const themeScript = `(function () {
  var query = matchMedia("(prefers-color-scheme: dark)");
  function apply() {
    var kept = null;
    try { kept = localStorage.getItem("${THEME_KEY}"); } catch (e) {}
    var dark = kept === "dark" || (kept !== "light" && query.matches);
    document.documentElement.dataset.theme = dark ? "dark" : "light";
  }
  apply();
  query.addEventListener("change", apply);
  window.addEventListener("storage", apply);
})();`;
