import { FOUND_CSS } from '../search/searchCss'

/** What a look at a file has beside the parts that pages have. */
export const SEE_CSS = `${FOUND_CSS}
.tr-page h1:has(+.tr-facts){margin-bottom:.25em}
.tr-get{display:flex;flex-wrap:wrap;align-items:center;gap:.6em 1.4em;margin-block:1.2em}
.tr-page .tr-get p{margin:0}
.tr-number{flex:0 0 5.5em}
:is(.tr-written,.tr-player,.tr-found):focus-visible{outline:3px solid var(--ink);outline-offset:2px}
.tr-page .tr-found{padding-inline-start:1.8em;max-height:14rem;overflow:auto}
.tr-leafing .tr-seek{margin:0}
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
.tr-sight+section{margin-top:2.4rem}
@media print{.tr-get{display:none}}`
