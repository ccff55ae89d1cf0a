/** What a search form has, wherever it stands. */
export const SEEK_CSS = `
.tr-seek{display:flex;flex-wrap:wrap;align-items:center;gap:.5em .7em;margin-block:1.4em}
.tr-field{flex:1 1 12rem;min-width:0;padding:.5em .7em;border:1px solid var(--soft);border-radius:var(--corner);background:var(--paper);color:var(--ink);font:inherit}
.tr-key-button{padding:.5em 1.1em;border:1px solid var(--accent);border-radius:var(--corner);background:none;color:var(--accent);font:600 1em/1.62 var(--text);cursor:pointer}
.tr-key-button:hover{color:var(--accent-dark);border-color:currentColor}
:is(.tr-field,.tr-key-button):focus-visible{outline:3px solid var(--ink);outline-offset:2px}
@container (max-width:34rem){.tr-seek>label{flex-basis:100%}}
@media print{.tr-seek{display:none}}`

/** Ways from page to page of something long. */
export const LEAFING_CSS = `
.tr-leafing{display:flex;flex-wrap:wrap;align-items:center;justify-content:space-between;gap:.5em 1.2em;margin-block:1em;font-variant-numeric:tabular-nums}
.tr-leafing>a{padding-block:.5em}`

/** What pages have that Trough itself makes of files: facts in a line, passages with marks, ways from page to page. */
export const FOUND_CSS = `
.tr-facts,.tr-said{color:var(--soft)}
.tr-page mark,.tr-marks{--mark:#E3B23C}
.tr-page mark{background:var(--mark);color:#17211F;border-radius:2px}${LEAFING_CSS}
.tr-page .tr-sheets{display:flex;flex-wrap:wrap;gap:.2em 1.4em;list-style:none;padding:0}
:is(.tr-found,.tr-sheets,.tr-choices) [aria-current]{font-weight:700;text-decoration-thickness:3px}
@media print{.tr-leafing{display:none}}`

/** What the page of what was found has beside that. */
export const SEARCH_CSS = `
.tr-page .tr-hits{list-style:none;padding:0}
.tr-page .tr-hit{margin:0;padding-block:1.1em;border-top:1px solid var(--rule)}
.tr-page .tr-hit h2{font-size:1.15em;margin:0}
.tr-page .tr-hit p{margin:.25em 0 0}
.tr-ways{display:flex;flex-wrap:wrap;gap:.2em 1.4em}
.tr-choices{display:grid;grid-template-columns:repeat(auto-fit,minmax(11rem,1fr));gap:1rem 2rem;padding-bottom:1rem}
.tr-page .tr-choices h2{font:600 1em/1.5 var(--text);margin:0 0 .3em}
.tr-page .tr-choices ul{list-style:none;margin:0;padding:0}
.tr-choices .tr-seek{grid-column:1/-1;margin:0}
.tr-page .tr-choices .tr-seek .tr-field{flex:0 1 11rem}
.tr-page .tr-choices .tr-seek h2{flex-basis:100%;margin:0}`
