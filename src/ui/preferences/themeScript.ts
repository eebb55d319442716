import { THEME_KEY, VISITED_KEY } from "./keys";

/**
 * Run before the first paint: sets the theme, follows the device while none is chosen, and says whether this is a first
 * visit.
 */
export const themeScript = `(function () {
  var query = matchMedia("(prefers-color-scheme: dark)");
  function apply() {
    var kept = null;
    try { kept = localStorage.getItem("${THEME_KEY}"); } catch (e) {}
    var dark = kept === "dark" || (kept !== "light" && query.matches);
    document.documentElement.dataset.theme = dark ? "dark" : "light";
  }
  apply();
  try { if (localStorage.getItem("${VISITED_KEY}")) document.documentElement.dataset.visited = ""; } catch (e) {}
  query.addEventListener("change", apply);
  window.addEventListener("storage", apply);
})();`;
