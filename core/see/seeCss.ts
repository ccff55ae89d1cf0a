/** What a look at a file has beside the parts that pages have. */
export const SEE_CSS = `
.tr-facts,.tr-said{color:var(--soft)}
.tr-page h1:has(+.tr-facts){margin-bottom:.25em}
.tr-get{display:flex;flex-wrap:wrap;align-items:center;gap:.6em 1.4em;margin-block:1.2em}
.tr-page .tr-get p{margin:0}
.tr-seek{display:flex;flex-wrap:wrap;align-items:center;gap:.5em .7em;margin-block:1.4em}
.tr-field{flex:1 1 12rem;min-width:0;padding:.5em .7em;border:1px solid var(--soft);border-radius:var(--corner);background:var(--paper);color:var(--ink);font:inherit}
.tr-number{flex:0 0 5.5em}
.tr-key-button{padding:.5em 1.1em;border:1px solid var(--accent);border-radius:var(--corner);background:none;color:var(--accent);font:600 1em/1.62 var(--text);cursor:pointer}
.tr-key-button:hover{color:var(--accent-dark);border-color:currentColor}
:is(.tr-field,.tr-key-button,.tr-written,.tr-player,.tr-found):focus-visible{outline:3px solid var(--ink);outline-offset:2px}
.tr-page .tr-found{padding-inline-start:1.8em;max-height:14rem;overflow:auto}
.tr-page mark,.tr-marks{--mark:#E3B23C}
.tr-page mark{background:var(--mark);color:#17211F;border-radius:2px}
.tr-found [aria-current],.tr-sheets [aria-current]{font-weight:700;text-decoration-thickness:3px}
.tr-leafing{display:flex;flex-wrap:wrap;align-items:center;justify-content:space-between;gap:.5em 1.2em;margin-block:1em;font-variant-numeric:tabular-nums}
.tr-leafing .tr-seek{margin:0}
.tr-leafing>a{padding-block:.5em}
@container (max-width:34rem){.tr-leafing>.tr-seek{order:-1;flex-basis:100%}}
.tr-page>.tr-sight{max-width:64rem}
.tr-sight>:is(nav,details,p,.tr-written){max-width:43rem;margin-inline:auto}
.tr-leaf{position:relative;margin:0 auto;width:fit-content;max-width:100%;border:1px solid var(--rule);background:#FFF}
.tr-leaf>img{display:block;max-width:100%;height:auto}
.tr-marks{position:absolute;inset:0;width:100%;height:100%;mix-blend-mode:multiply}
.tr-marks rect{fill:var(--mark);fill-opacity:.62}
.tr-sight>.tr-table{width:fit-content;min-width:min(100%,43rem);max-width:100%;margin-inline:auto}
.tr-written{overflow-wrap:anywhere;padding-block:.4em}
.tr-plain{white-space:pre-line}
.tr-page pre.tr-written{white-space:pre-wrap;font:.9rem/1.55 ui-monospace,monospace;border:1px solid var(--rule);padding:1em;max-height:80vh;overflow:auto}
.tr-written img{max-width:100%;height:auto}
.tr-player{display:block;width:100%;max-width:43rem;margin-inline:auto}
.tr-page .tr-sheets{display:flex;flex-wrap:wrap;gap:.2em 1.4em;list-style:none;padding:0}
.tr-sight+section{margin-top:2.4rem}
@media print{.tr-seek,.tr-leafing,.tr-get{display:none}}`
