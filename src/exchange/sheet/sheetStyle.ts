/** The style of the sheet and of the labels: that of Cortijo's pages, with the type that a device has. */
export const SHEET_STYLE = `
:root {
  color-scheme: light dark;
  --ground: #faf7f0;
  --ink: #23252b;
  --soft: #5d5b57;
  --line: #d9d2c3;
  --indigo: #2f3c7e;
  --on: #fff;
  --geranium: #b3323a;
  --ochre: #7d5410;
  --green: #2f6b48;
}
@media (prefers-color-scheme: dark) {
  :root {
    --ground: #161922;
    --ink: #ece7db;
    --soft: #b0aca2;
    --line: #353a49;
    --indigo: #a9b4ee;
    --on: #161922;
    --geranium: #f0959a;
    --ochre: #e2b768;
    --green: #8fcaa6;
  }
}
* { box-sizing: border-box; }
body {
  margin: 0 auto;
  max-width: 44rem;
  padding: 1rem;
  background: var(--ground);
  color: var(--ink);
  font: 1.05rem/1.45 "Segoe UI", "Noto Sans", Roboto, sans-serif;
}
h1, h2 { font-family: Georgia, "Noto Serif", serif; font-weight: 600; line-height: 1.2; }
h2 { margin: 0 0 .3rem; }
h3 { margin: 1rem 0 .2rem; font-size: 1rem; }
section { border-top: 2px solid var(--indigo); padding: 1rem 0 1.5rem; }
section.done h2 { color: var(--green); }
section.done h2::after { content: " \\2713"; }
p { margin: .3rem 0; }
ul, ol { margin: .3rem 0; padding-left: 0; list-style: none; }
li { border-bottom: 1px solid var(--line); overflow-wrap: anywhere; }
li:last-child { border-bottom: 0; }
li > label { display: flex; gap: .7rem; align-items: flex-start; padding: .55rem 0; min-height: 2.75rem; }
input[type="checkbox"] {
  width: 1.35rem;
  height: 1.35rem;
  flex: none;
  margin: .1rem 0 0;
  accent-color: var(--indigo);
}
.times { display: grid; gap: .7rem; grid-template-columns: repeat(auto-fit, minmax(15rem, 1fr)); margin-top: .8rem; }
.times label, .label { display: block; color: var(--soft); font-size: .9rem; }
input:not([type="checkbox"]), textarea {
  width: 100%;
  min-height: 2.75rem;
  padding: .3rem .5rem;
  font: inherit;
  color: inherit;
  background: transparent;
  border: 1px solid var(--soft);
  border-radius: .25rem;
}
button {
  min-height: 2.75rem;
  padding: .3rem .9rem;
  font: inherit;
  border: 1px solid var(--indigo);
  border-radius: .25rem;
  background: transparent;
  color: var(--indigo);
  cursor: pointer;
}
button.main { background: var(--indigo); color: var(--on); }
.row { display: flex; gap: .4rem; align-items: flex-end; }
.row > :first-child { flex: 1; min-width: 0; }
:focus-visible { outline: 2px solid var(--indigo); outline-offset: 2px; }
.soft { color: var(--soft); }
.erase { color: var(--geranium); font-weight: 600; }
.warn { border-left: 4px solid var(--ochre); padding-left: .6rem; }
.labels { display: grid; grid-template-columns: repeat(auto-fill, minmax(6.2cm, 1fr)); gap: 0; }
.labels > li {
  border: 1px dashed var(--soft);
  padding: .35cm;
  min-height: 2.9cm;
  margin: -0.5px;
  break-inside: avoid;
  list-style: none;
}
.labels .bay { font: 600 1.5rem/1.1 Georgia, serif; }
@media print {
  :root {
    --ground: #fff;
    --ink: #000;
    --soft: #444;
  }
  button, .noprint {
    display: none !important;
  }
  section {
    break-inside: avoid;
  }
  body {
    max-width: none;
    padding: 0;
  }
}
`;
