import type { SiteStyle } from '../look/siteStyle'

/** Lines with a link, and folders to fold out. */
const LINES = `
.tr-shelf{margin-block:1.1em}
.tr-page .tr-shelf ul{list-style:none;margin:0;padding:0;border-top:1px solid var(--rule)}
.tr-page .tr-shelf li{display:flex;align-items:stretch;margin:0;border-bottom:1px solid var(--rule)}
.tr-tick{display:flex;align-items:center;padding:0 1em 0 .2em;min-width:2.6em;cursor:pointer}
.tr-tick input{width:1.15em;height:1.15em;margin:0;accent-color:var(--accent)}
.tr-item{flex:1;min-width:0;display:flex;justify-content:space-between;align-items:baseline;flex-wrap:wrap;gap:.1em 1.5em;padding:var(--pad,.7em) .2em;color:var(--ink);text-decoration:none}
.tr-item .tr-label{font-weight:600;text-decoration:underline;text-decoration-color:var(--accent);text-decoration-thickness:2px;text-underline-offset:.25em}
.tr-item .tr-note{color:var(--soft)}
.tr-item:hover .tr-label{color:var(--accent)}
.tr-item:focus-visible,.tr-tick input:focus-visible{outline:3px solid var(--ink);outline-offset:2px}
.tr-page .tr-shelf .tr-fold{margin-block:0}
.tr-page .tr-shelf :is(ul,.tr-fold)+.tr-fold{margin-top:-1px}
.tr-close{--pad:.3em}
.tr-airy{--pad:1.15em}
.tr-folder{position:relative}
.tr-folder[open]>summary{padding-inline-end:2.4em}
.tr-here{position:absolute;inset-inline-end:0;top:.25em;padding:.3em .7em;color:var(--soft);text-decoration:none}
.tr-here:hover{color:var(--accent)}
.tr-here:focus-visible{outline:3px solid var(--ink);outline-offset:2px}
.tr-folder>summary>.tr-note{margin-left:auto;font-weight:400;color:var(--soft)}
.tr-page .tr-shelf .tr-folder>:not(summary,.tr-here){margin-left:1.4em}
.tr-page .tr-shelf .tr-folder>ul:not([class]):last-child>li:last-child{border-bottom:0}
.tr-page .tr-take{display:flex;flex-wrap:wrap;gap:.6em;margin:.9em 0 0}
.tr-take button{font-family:inherit;cursor:pointer}
@media print{.tr-page .tr-take,.tr-tick{display:none}}`

/** Items with more than a line: pictures and icons at their side, words below, keys at the end; tiles, cards, and small lists. */
export const ITEMS_CSS = `
.tr-shelf{--sign:2.2rem}
.tr-signs-small{--sign:1.4rem}
.tr-signs-large{--sign:3.4rem}
.tr-body{flex:1;min-width:0;align-self:center;padding-block:var(--pad,.7em)}
.tr-body .tr-item{padding:0}
.tr-page .tr-more{margin:.25em 0 0;color:var(--soft)}
.tr-shelf .tr-note{font-variant-numeric:tabular-nums}
.tr-new{padding:.05em .5em;border-radius:var(--corner);background:var(--accent);color:var(--paper);font-size:.82em;font-weight:600;white-space:nowrap}
.tr-sign{flex:none;align-self:center;box-sizing:border-box;width:var(--sign);height:var(--sign);margin-inline-end:.9em;object-fit:contain;fill:var(--accent)}
.tr-sign-type,.tr-view-type{display:grid;place-items:center;border:1px solid var(--rule);color:var(--soft);font:600 calc(var(--sign)*.3)/1 var(--text);overflow:hidden}
.tr-view{flex:none;align-self:center;width:calc(var(--sign)*1.5);height:calc(var(--sign)*1.8);margin:.35em .9em .35em 0;object-fit:cover;object-position:top;border:1px solid var(--rule);border-radius:var(--corner)}
.tr-acts{display:flex;flex-wrap:wrap;align-items:center;gap:.3em 1em;padding-block:.35em;margin-inline-start:1em}
.tr-acts .tr-button{margin:0;padding:.45em .9em}
.tr-page .tr-shelf :is(.tr-tiles,.tr-cards){display:grid;grid-template-columns:repeat(var(--wide),minmax(0,1fr));gap:1.4rem 1.2rem;border:0;margin-block:.4em 1em}
.tr-page .tr-shelf :is(.tr-tiles,.tr-cards)>li{position:relative;flex-direction:column;min-width:0;border:0;padding:0;background:none;border-radius:0}
:is(.tr-tiles,.tr-cards) .tr-view{width:100%;height:auto;aspect-ratio:4/3;margin:0 0 .7em;align-self:stretch;--sign:4rem}
:is(.tr-tiles,.tr-cards) :is(.tr-body,.tr-item){flex:none;align-self:stretch;padding-block:0}
:is(.tr-tiles,.tr-cards) .tr-item{flex-direction:column;align-items:flex-start;padding-inline:0}
:is(.tr-tiles,.tr-cards) .tr-sign{align-self:flex-start;margin:0 0 .6em}
:is(.tr-tiles,.tr-cards) .tr-acts{margin:auto 0 0;padding-block:.8em 0}
:is(.tr-tiles,.tr-cards) .tr-tick{position:absolute;top:0;inset-inline-end:0;min-width:2.6em;min-height:2.6em;justify-content:center;padding:0;z-index:1;background:var(--paper);border:1px solid var(--rule);border-radius:0 var(--corner) 0 var(--corner)}
.tr-tiles .tr-item::after{content:"";position:absolute;inset:0}
.tr-tiles .tr-acts,.tr-tiles .tr-tick{z-index:1;position:relative}
.tr-tiles .tr-tick{position:absolute}
.tr-page .tr-shelf .tr-cards>li{border:1px solid var(--rule);border-radius:var(--corner);overflow:hidden;background:var(--paper);padding:0 1.1rem 1.1rem}
.tr-cards .tr-view{width:calc(100% + 2.2rem);margin:0 -1.1rem .9rem;border:0;border-bottom:1px solid var(--rule);border-radius:0}
.tr-cards>li>.tr-sign:first-child,.tr-cards>li>:is(.tr-body,.tr-item):first-child{margin-top:1.1rem}
.tr-page .tr-shelf .tr-compact,.tr-page .tr-shelf .tr-compact>li{border:0;padding:0;background:none}
.tr-compact{font-size:.93em}
.tr-compact .tr-item{justify-content:flex-start;padding-block:var(--pad,.25em)}
.tr-compact .tr-label{font-weight:500;text-decoration-thickness:1px}
@media (max-width:34rem){.tr-page .tr-shelf :is(.tr-tiles,.tr-cards){grid-template-columns:repeat(var(--narrow),minmax(0,1fr))}.tr-page .tr-shelf ul:not(.tr-tiles,.tr-cards)>li{flex-wrap:wrap}.tr-page .tr-shelf ul:not(.tr-tiles,.tr-cards)>li>.tr-acts{flex-basis:100%;margin:0 0 .6em}}`

export const FILE_TABLE_CSS = `
.tr-files{position:relative}
.tr-page .tr-files tbody th{font-weight:400;min-width:11em}
.tr-files .tr-item{display:inline;padding:0}
.tr-page .tr-files :is(th,td){vertical-align:middle;padding-block:var(--pad,.55em)}
.tr-page .tr-files .tr-pick{min-width:0;width:2.6em;padding-inline-end:0}
.tr-page .tr-files td.tr-pick{padding-block:0}
.tr-page .tr-files .tr-number{text-align:end;white-space:nowrap}
.tr-page .tr-files .tr-when{white-space:nowrap}
.tr-files .tr-sign{display:block}
.tr-files span.tr-sign{display:grid}`

export const GALLERY_CSS = `
.tr-page .tr-shelf .tr-gallery{display:grid;grid-template-columns:repeat(auto-fill,minmax(min(11rem,45%),1fr));gap:1.2rem 1rem;border:0}
.tr-page .tr-shelf .tr-gallery>li{display:block;border:0}
.tr-tile{display:block;width:100%;padding:0;border:0;background:var(--rule);border-radius:var(--corner);overflow:hidden;cursor:zoom-in}
.tr-tile-picture{display:block;width:100%;height:auto;aspect-ratio:1;object-fit:cover;object-position:top}
.tr-tile-line{display:flex;align-items:center;min-height:2.4em;line-height:1.3}
.tr-tile:focus-visible,.tr-away:focus-visible{outline:3px solid var(--ink);outline-offset:3px}
.tr-large{width:fit-content;max-width:96vw;max-height:96vh;padding:0;border:0;margin:auto;background:var(--paper);color:var(--ink);overflow:auto;border-radius:var(--corner)}
.tr-large::backdrop{background:rgb(0 0 0/.72)}
.tr-large-picture{display:block;width:auto;height:auto;max-width:92vw;max-height:calc(92vh - 5rem);margin-inline:auto}
.tr-large figcaption{display:flex;flex-wrap:wrap;align-items:center;justify-content:space-between;gap:.2rem 1.5rem;padding:.2rem 1rem}
.tr-away{min-width:2.75rem;min-height:2.75rem;border:1px solid var(--rule);border-radius:var(--corner);background:none;color:var(--ink);font:400 1.25rem/1 var(--text);cursor:pointer}
.tr-away:hover{border-color:var(--accent);color:var(--accent)}`

/** How much of the accent a band has in it: what is written on it stays easy to read. */
export const BAND = 0.06
/** How the lines of a shelf are told apart, other than by rules. */
const SHELF_LINE = {
  ruled: '',
  boxed: `
.tr-page .tr-shelf ul:not([class]){display:grid;gap:.55rem;border:0}
.tr-page .tr-shelf ul:not([class])>li{border:1px solid var(--rule);border-radius:var(--corner);padding-inline:.8em}
.tr-page .tr-shelf ul:not([class])>li:hover{border-color:var(--accent)}`,
  banded: `
.tr-page .tr-shelf ul:not([class]),.tr-page .tr-shelf ul:not([class])>li{border:0}
.tr-page .tr-shelf ul:not([class])>li{padding-inline:.8em;border-radius:var(--corner)}
.tr-page .tr-shelf ul:not([class])>li:nth-child(odd){background:color-mix(in srgb,var(--accent) ${100 * BAND}%,transparent)}`,
} as const

/** What every shelf has, in a style. */
export const shelfCss = ({ shelves }: SiteStyle): string => LINES + SHELF_LINE[shelves]
