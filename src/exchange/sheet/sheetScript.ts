// What the sheet does by itself, without network and without Cortijo: it keeps ticks and times in the browser that has
// it open, and writes the line that brings them back. Its own code, since nothing can be loaded there.

/** The script of a sheet; `SHEET` is put in its place before it. */
export const SHEET_SCRIPT = `
(() => {
  "use strict";
  const key = "cortijo-sheet:" + SHEET.key;
  let kept = {};
  try { kept = JSON.parse(localStorage.getItem(key) || "{}") || {}; } catch { kept = {}; }
  const all = (selector, within) => [...(within || document).querySelectorAll(selector)];
  const two = (n) => String(n).padStart(2, "0");
  const day = (at) => at.getFullYear() + "-" + two(at.getMonth() + 1) + "-" + two(at.getDate());
  const local = (at) => day(at) + "T" + two(at.getHours()) + ":" + two(at.getMinutes());
  const instant = (text) => {
    const at = new Date(text);
    return Number.isFinite(at.getTime()) ? at.toISOString().slice(0, 16) + "Z" : null;
  };
  const fields = all("input");
  for (const field of fields) {
    const was = kept[field.id];
    if (was === undefined) continue;
    if (field.type === "checkbox") field.checked = was === true;
    else field.value = String(was);
  }
  const record = () => {
    const steps = [];
    for (const step of SHEET.steps) {
      const value = (what) => document.getElementById(what + "-" + step).value;
      const end = instant(value("end"));
      const start = instant(value("start")) || end;
      if (!start) continue;
      const seen = value("seen").trim().slice(0, 40);
      const serials = all("[data-drive]")
        .filter((field) => field.dataset.step === step && field.value.trim() !== "")
        .map((field) => ({ drive: field.dataset.drive, serial: field.value.trim() }));
      const known = { ...(end ? { end } : {}), ...(seen ? { seen } : {}) };
      steps.push({ step, start, ...known, ...(serials.length > 0 ? { serials } : {}) });
    }
    return JSON.stringify({ format: "cortijo-sheet", version: 1, plan: SHEET.plan, steps });
  };
  const line = document.getElementById("line");
  const said = document.getElementById("said");
  const keep = () => {
    const next = {};
    for (const field of fields) next[field.id] = field.type === "checkbox" ? field.checked : field.value;
    let isKept = true;
    try { localStorage.setItem(key, JSON.stringify(next)); } catch { isKept = false; }
    document.getElementById("unkept").hidden = isKept;
    line.value = record();
    for (const step of SHEET.steps) {
      const isDone = document.getElementById("end-" + step).value !== "";
      document.getElementById("step-" + step).classList.toggle("done", isDone);
    }
  };
  document.addEventListener("input", keep);
  document.addEventListener("click", (event) => {
    const button = event.target.closest("button");
    if (!button) return;
    const what = button.dataset;
    if (what.now) {
      const field = document.getElementById(what.now);
      field.value = local(new Date());
      keep();
      said.textContent = what.says + ": " + field.value.replace("T", " ") + ".";
      field.focus();
    }
    if (what.does === "copy") {
      line.select();
      const may = navigator.clipboard && window.isSecureContext;
      const copied = may ? navigator.clipboard.writeText(line.value) : Promise.reject();
      const selected = "The line is selected: copy it with the keyboard or the menu.";
      copied.then(() => { said.textContent = "Copied."; }, () => { said.textContent = selected; });
    }
    if (what.does === "save") {
      const link = document.createElement("a");
      link.href = URL.createObjectURL(new Blob([line.value + "\\n"], { type: "application/json" }));
      link.download = SHEET.file;
      link.click();
    }
    if (what.does === "print") window.print();
  });
  keep();
})();
`;
