import { ENTRIES_CSS } from '../catalogue/listHtml'
import { GATE_CSS } from '../gate/gatePage'
import { LETTERBOX_CSS } from '../letterbox/letterboxHtml'
import { fontFaces } from '../look/fontFaces'
import { BUTTON_CSS } from '../look/buttonCss'
import { CORNER } from '../look/builtin'
import { paletteCss, tonePalettes } from '../look/palette'
import type { Paper, SiteStyle } from '../look/siteStyle'
import { familiesOf, fontsOf } from '../look/typefaces'
import { LEAFING_CSS, SEEK_CSS } from '../search/searchCss'
import { FILE_TABLE_CSS, GALLERY_CSS, ITEMS_CSS, shelfCss } from '../shelf/shelfCss'
import type { PartName } from './blocks'

const TEXT = `
.tr-page{container-type:inline-size;color:var(--ink);font:400 1.0625rem/1.62 var(--text);overflow-wrap:break-word}
.tr-page :is(p,h1,h2,h3,h4,li,th,td,figcaption){unicode-bidi:plaintext}
.tr-page h1,.tr-page h2,.tr-page h3,.tr-page h4{font-family:var(--heading);line-height:1.22;font-weight:560;text-wrap:balance;margin-block:var(--above) .55em}
.tr-page h1{font-size:var(--h1);letter-spacing:-.018em;margin-block:0 .7em}
.tr-page p{margin-block:0 1em;text-wrap:pretty}
.tr-page>*{max-width:43rem;margin-inline:auto}`

const HEADINGS = `
.tr-page h2{font-size:var(--h2);letter-spacing:-.01em}
.tr-page h3{font-size:var(--h3)}
.tr-page h4{font-size:1.0625rem}`

const LISTS = `
.tr-page ul,.tr-page ol{margin-block:0 1em;padding-inline-start:1.35em}
.tr-page li{margin:.25em 0}
.tr-page li>p{margin-block:0}`

const LINKS = `
.tr-link{color:var(--accent);text-decoration:underline;text-decoration-thickness:1px;text-underline-offset:.2em}
.tr-link:hover{color:var(--accent-dark);text-decoration-thickness:2px}
.tr-link:focus-visible{outline:3px solid var(--ink);outline-offset:2px}`

const COLUMNS = `
.tr-columns{display:grid;gap:1.4rem 2.2rem;margin-block:2.2rem}
@container (min-width:25rem){.tr-columns-2,.tr-columns-4{grid-template-columns:1fr 1fr}}
@container (min-width:25rem){.tr-columns-2.tr-share-first{grid-template-columns:2fr 1fr}.tr-columns-2.tr-share-last{grid-template-columns:1fr 2fr}}
@container (min-width:34rem){.tr-columns-3{grid-template-columns:1fr 1fr 1fr}}
@container (min-width:52rem){.tr-columns-4{grid-template-columns:repeat(4,1fr)}}
.tr-column{min-width:0}
.tr-page .tr-column>:first-child{margin-top:0}
.tr-page .tr-column>:last-child{margin-bottom:0}
.tr-column>blockquote{margin-inline:0}`

const FOLD = `
.tr-fold{margin-block:1.1em;border-block:1px solid var(--rule)}
.tr-fold+.tr-fold{margin-top:calc(-1.1em - 1px)}
.tr-page .tr-fold>:is(summary,.tr-fold-title){display:flex;justify-content:space-between;gap:1em;padding-block:.75em;font-weight:600;cursor:pointer}
.tr-fold>summary::-webkit-details-marker{display:none}
.tr-fold>:is(summary,.tr-fold-title)::after{content:"+";color:var(--accent);font-weight:400}
.tr-fold[open]>summary::after{content:"\\2212"}
.tr-fold>summary:hover{color:var(--accent)}
.tr-fold>summary:focus-visible{outline:3px solid var(--ink);outline-offset:2px}
@media print{.tr-fold::details-content{content-visibility:visible}}`

const ROW = `
.tr-row{display:flex;flex-wrap:wrap;gap:.8em;margin-block:1.1em}
.tr-row-middle{justify-content:center}
.tr-row-right{justify-content:flex-end}
.tr-page .tr-row .tr-place.tr-place{margin:0;max-width:100%}`

const QUOTE = `
.tr-page blockquote{margin-block:1.4em;padding-block:.1em;padding-inline-start:1.3em;border-inline-start:3px solid var(--accent);font-family:var(--heading);font-size:1.12em}
.tr-page blockquote>:last-child{margin-bottom:0}`

const TABLE = `
.tr-table{position:relative;overflow-x:auto;margin-block:1.4em}
.tr-table:focus-visible{outline:3px solid var(--accent);outline-offset:2px}
.tr-page table{border-collapse:collapse;width:100%;line-height:1.45}
.tr-page :is(th,td){min-width:4.5em;padding-block:.55em;padding-inline:0 1.1em;border-bottom:1px solid var(--rule);text-align:start;vertical-align:top;font-variant-numeric:tabular-nums}
.tr-page th{font-weight:600}
.tr-page :is(th,td)>p:last-child{margin-bottom:0}
.tr-page thead th{border-bottom:2px solid var(--accent)}`

const RULE = `
.tr-page hr{height:0;border:0;border-top:1px solid var(--rule);margin-block:2.4em}`

const SPACE = `
.tr-space-small{height:1rem}
.tr-space-medium{height:2.5rem}
.tr-space-large{height:5rem}`

const section = ({ palette }: SiteStyle) => {
  const tones = tonePalettes(palette)
  return `
.tr-section>*{max-width:43rem;margin-inline:auto}
.tr-page .tr-section>:first-child{margin-top:0}
.tr-page .tr-section>:last-child{margin-bottom:0}
.tr-width-wide>*{max-width:64rem}
.tr-page>.tr-section{max-width:none;border:0;margin-inline:calc(-1*var(--bleed,1.5rem));margin-block:2rem;padding:var(--room) var(--bleed,1.5rem);background:var(--paper);color:var(--ink)}
.tr-page>.tr-pad-small{padding-block:calc(var(--room)*.46)}
.tr-page>.tr-pad-large{padding-block:calc(var(--room)*1.77)}
main>.tr-section:last-child{margin-bottom:-3rem}
footer>.tr-section:first-child{margin-top:0}
.tr-page>.tr-section+:is(.tr-section,.tr-foot){margin-top:-2rem}
.tr-tone-tint{${paletteCss(tones.tint)}}
.tr-tone-deep{${paletteCss(tones.deep)}}
.tr-page>.tr-pictured{position:relative;isolation:isolate}
.tr-section>.tr-behind{position:absolute;z-index:-1;inset:0;max-width:none;margin:0;overflow:hidden}
.tr-behind::after{content:"";position:absolute;inset:0;background:var(--paper);opacity:var(--veil)}
.tr-behind-picture{display:block;width:100%;height:100%;object-fit:cover}
.tr-page .tr-pictured>:is(.tr-behind,h1)+*{margin-top:0}
main.tr-page>.tr-pictured:first-child{margin-top:calc(-1*var(--over,3.2rem))}
body:has(>main>.tr-pictured:first-child) .tr-head{border-color:transparent}
@media print{.tr-behind{display:none}}`
}

const CARD = `
.tr-card{display:flex;flex-wrap:wrap;gap:0;margin-block:1.2em;border:1px solid var(--rule);border-radius:var(--corner);overflow:hidden;break-inside:avoid;background:var(--paper)}
.tr-card-picture{flex:1 1 9rem;min-width:0;max-width:100%;width:9rem;height:auto;min-height:9rem;max-height:16rem;object-fit:cover;object-position:top;background:var(--rule)}
.tr-card-body{flex:2 1 15rem;min-width:0;padding:1.1rem 1.25rem}
.tr-page .tr-card-title{font-family:var(--heading);font-size:1.2rem;line-height:1.3;font-weight:560;margin:0 0 .3em}
.tr-page .tr-card-text{margin:0 0 .8em;color:var(--soft)}
.tr-page .tr-card .tr-place.tr-place{margin:.4em 0 0}`

const PICTURE = `
.tr-page .tr-picture{margin:1.6em auto}
.tr-image{display:block;max-width:100%;height:auto;border-radius:var(--corner)}
.tr-led{display:block;border-radius:var(--corner)}
.tr-led:focus-visible{outline:3px solid var(--ink);outline-offset:3px}
.tr-picture figcaption{margin-top:.5em;font-size:.9em;color:var(--soft)}
.tr-picture-small .tr-image{width:14rem}
.tr-picture-half .tr-image{width:22rem}
.tr-picture-text .tr-image,.tr-picture-wide .tr-image{width:100%}
.tr-page>.tr-picture-wide,.tr-section>.tr-picture-wide{max-width:64rem}
.tr-picture-middle{text-align:center}
.tr-picture-middle .tr-image{margin-inline:auto}
.tr-picture-right{text-align:right}
.tr-picture-right .tr-image{margin-left:auto}`

/** The rules of each part of a page, with the parts that need them. */
const PARTS: [needing: PartName[], rules: string | ((style: SiteStyle) => string)][] = [
  [['heading'], HEADINGS],
  [['search', 'letterbox', 'entryList'], SEEK_CSS],
  [['letterbox'], GATE_CSS + LETTERBOX_CSS],
  [['bulletList', 'orderedList', 'shelf', 'entryList'], LISTS],
  [['downloadLink', 'shelf', 'entryList'], LINKS],
  [['section'], section],
  [['columns'], COLUMNS],
  [['fold'], FOLD],
  [['downloadButton', 'shelf', 'fileCard', 'picture'], BUTTON_CSS],
  [['buttonRow'], ROW],
  [['blockquote'], QUOTE],
  [['table'], TABLE],
  [['horizontalRule'], RULE],
  [['space'], SPACE],
  [['shelf'], shelfCss],
  [['shelfItems'], ITEMS_CSS],
  [['shelfTable'], FILE_TABLE_CSS],
  [['gallery'], GALLERY_CSS],
  [['fileCard'], CARD],
  [['picture'], PICTURE],
  [['entryList'], LEAFING_CSS + ENTRIES_CSS],
]

/** Sizes of headings by the style's scale: of a page, a part, a smaller part. */
const SCALE = {
  compact: ['clamp(1.75rem,1.4rem + 1.5cqi,2.25rem)', '1.4rem', '1.15rem'],
  even: ['clamp(2rem,1.5rem + 2.4cqi,2.9rem)', '1.6rem', '1.25rem'],
  grand: ['clamp(2.25rem,1.5rem + 3.6cqi,3.7rem)', '1.9rem', '1.35rem'],
} as const
/** Above headings, in their size; above and below what stands on a background. */
const RHYTHM = { tight: ['1.5em', '2rem'], even: ['1.9em', '2.6rem'], airy: ['2.2em', '3.8rem'] } as const

/** How far a picture reaches up behind a head: further than that is high, and what is above the page is not seen. */
const HEAD_OVER = '12rem'

/** Colours, type and room as custom properties, which all rules take them from. */
function styleCss({ palette, type, own, scale, corners, rhythm, head }: SiteStyle): string {
  const [h1, h2, h3] = SCALE[scale]
  const [above, room] = RHYTHM[rhythm]
  const { heading, text } = familiesOf({ type, own })
  return `${paletteCss(palette)};--heading:${heading};--text:${text};--h1:${h1};--h2:${h2};--h3:${h3};--corner:${CORNER[corners]}px;--above:${above};--room:${room}${head === 'over' ? `;--head-over:${HEAD_OVER}` : ''}`
}

/** On a phone a long menu comes from below, near the thumb, when its key is pressed. */
const FOLDED_MENU = `
.tr-menu[popover]{position:static;inset:auto;width:auto;height:auto;border:0;background:none;color:inherit;overflow:visible}
@supports selector(:popover-open){@media screen and (max-width:34rem){
.tr-page>.tr-head{flex-direction:row;align-items:center}
.tr-head:has(.tr-key) .tr-site{margin-right:auto}
.tr-key{display:block;padding:.4rem .9rem;border:1px solid var(--rule);border-radius:var(--corner);background:none;color:var(--ink);font:500 1rem/1.4 var(--text)}
.tr-key:focus-visible{outline:3px solid var(--ink);outline-offset:2px}
.tr-head .tr-menu[popover]:not(:popover-open){display:none}
.tr-head .tr-menu:popover-open{position:fixed;inset:auto 0 0;width:auto;max-height:80vh;overflow:auto;display:grid;gap:0;padding:1rem 1.4rem 1.6rem;border-top:3px solid var(--accent);background:var(--paper);color:var(--ink)}
.tr-menu:popover-open>li{border-bottom:1px solid var(--rule)}
.tr-menu:popover-open>li:last-child{border:0}
.tr-menu:popover-open a{display:block;padding-block:.6rem;font-size:1.1rem}
.tr-menu::backdrop{background:rgb(0 0 0/.35)}}}`

/** Where the site's name and menu stand. */
function headCss({ head, palette }: SiteStyle): string {
  switch (head) {
    case 'beside':
      return ''
    case 'centred':
      return `
.tr-page>.tr-head{flex-direction:column;align-items:center;padding-block:2.2rem 1.2rem}
.tr-site{margin:0;font-size:1.5rem}
.tr-head .tr-menu{justify-content:center}`
    case 'over':
      return `
@media screen{header.tr-over{position:relative;z-index:1;background:none;--soft:var(--ink)}
.tr-over .tr-key{border-color:currentColor}
main.tr-page>.tr-pictured:first-child>.tr-behind{top:calc(-1*var(--head-over))}}`
    case 'band':
      return `
header.tr-page{${paletteCss(tonePalettes(palette).deep)};background:var(--paper)}
.tr-page>.tr-head{border-bottom:0}`
  }
}

/** The attribute of a link within the site that says its address as one would type it. */
export const ON_PAPER = 'data-paper'
/** Where a link leads is written behind it, since nobody can press it on paper (common practice); within the site with its address. */
const addressesCss = ({ addresses }: Paper, site: string): string =>
  (addresses === 'none' ? '' : `\na[href^=http]::after{content:" (" attr(href) ")";font-size:.85em;overflow-wrap:anywhere}`) +
  (addresses === 'all' && site
    ? `\n[${ON_PAPER}]::after{content:" (${new URL(site).origin}" attr(${ON_PAPER}) ")";font-size:.85em;overflow-wrap:anywhere}`
    : '')

/** On paper: the words in black, without what can only be clicked. */
const printCss = (paper: Paper, site: string) => `
@media print{html,.tr-page,.tr-page>*{--paper:#fff;--ink:#000;--soft:#333;--rule:#999;background:#fff}
.tr-head nav{display:none}
${paper.code ? '.tr-page>.tr-code{display:flex;align-items:center;gap:1rem;break-inside:avoid}\n' : ''}main{padding-block:1rem}
main.tr-page>.tr-pictured:first-child{margin-top:0}${addressesCss(paper, site)}
h1,h2,h3,h4{break-after:avoid}
li,figure,table{break-inside:avoid}}`

/** For readers whose screen is dark: the same page in the style's other colours (Media Queries 5, `prefers-color-scheme`). */
function darkCss({ dark, head }: SiteStyle, used: ReadonlySet<PartName>): string {
  if (!dark) return ''
  const tones = tonePalettes(dark)
  const sections = used.has('section') ? `.tr-tone-tint{${paletteCss(tones.tint)}}.tr-tone-deep{${paletteCss(tones.deep)}}` : ''
  const band = head === 'band' ? `header.tr-page{${paletteCss(tones.deep)}}` : ''
  return `
html{color-scheme:light dark}
@media screen and (prefers-color-scheme:dark){html,.tr-page{${paletteCss(dark)}}${sections}${band}}`
}

/**
 * How the words, lists and buttons of a page look, under `.tr-page`; shared with the editor.
 *
 * @param used only the rules of these parts; of all where left out
 */
export function contentCss(style: SiteStyle, used?: ReadonlySet<PartName>): string {
  const rules = PARTS.filter(([needing]) => !used || needing.some(name => used.has(name))).map(([, part]) =>
    typeof part === 'string' ? part : part(style),
  )
  return `
.tr-page{${styleCss(style)}}${TEXT}${rules.join('')}`
}

/**
 * The style sheet of a published page, without that of its looks.
 *
 * @param site scheme and host of the public site; empty until known
 */
export function pageCss(style: SiteStyle, used: ReadonlySet<PartName>, site: string): string {
  return `${fontFaces(fontsOf(style), 'optional')}
*{box-sizing:border-box}
html{${styleCss(style)};background:var(--paper);-webkit-text-size-adjust:100%}
body{margin:0;min-height:100vh;display:flex;flex-direction:column}
header.tr-page,footer.tr-page{padding-inline:var(--bleed,1.5rem)}
.tr-page>.tr-head{display:flex;flex-wrap:wrap;align-items:baseline;gap:.4rem 2rem;padding:1.6rem 0 1.1rem;border-bottom:1px solid var(--rule);font:400 .98rem/1.5 var(--text)}
.tr-site{font:600 1.15rem/1.4 var(--heading);color:var(--ink);text-decoration:none;margin-right:auto}
.tr-mark{display:block;height:3rem;width:auto;max-width:100%;object-fit:contain}
.tr-key{display:none}
.tr-head .tr-menu{display:flex;flex-wrap:wrap;align-items:baseline;gap:.2rem 1.4rem;list-style:none;margin:0;padding:0}
.tr-head .tr-menu>li{margin:0}
.tr-listed{display:inline-block;padding:.25rem 0;color:var(--soft);text-decoration:none}
.tr-listed:hover{color:var(--ink)}
.tr-menu a[aria-current]{color:var(--ink);box-shadow:inset 0 -2px var(--accent)}
.tr-head a:focus-visible{outline:3px solid var(--ink);outline-offset:3px}
main{flex:1;width:100%;padding:3.2rem var(--bleed,1.5rem) 3rem}
main.tr-page>h1+*{margin-top:0}
main>:last-child{margin-bottom:0}
footer>:first-child{border-top:1px solid var(--rule);padding-top:1.1rem}
.tr-page>.tr-foot{margin-block:0;padding-block:1.1rem 2.2rem;color:var(--soft);font:400 .9rem/1.5 var(--text)}
@media (max-width:34rem){.tr-page{--bleed:1.15rem;--over:2rem}main{padding-top:2rem}}${style.paper.code ? '\n.tr-code{display:none}' : ''}${headCss(style)}${FOLDED_MENU}${contentCss(style, used)}${darkCss(style, used)}${printCss(style.paper, site)}`
}
