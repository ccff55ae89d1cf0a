import { LOOKS_CSS } from '../look/builtin'
import { DEFAULT_PALETTE, paletteCss, tonePalettes, type Palette } from '../look/palette'

/** Where the site's own fonts are served. */
export const FONT_FILES = {
  heading: '/_fonts/literata/literata-latin-wght-normal.woff2',
  text: '/_fonts/hanken/hanken-grotesk-latin-wght-normal.woff2',
}

const fontFace = (family: string, url: string, weights: string) =>
  `@font-face{font-family:"${family}";src:url(${url}) format("woff2");font-weight:${weights};font-display:swap}`

/** How the words, lists and buttons of a page look, under `.tr-page`; shared with the editor. */
export function contentCss(palette: Palette = DEFAULT_PALETTE): string {
  const tones = tonePalettes(palette)
  return `
.tr-page{${paletteCss(palette)};container-type:inline-size;color:var(--ink);font:400 1.0625rem/1.62 "Hanken Grotesk",system-ui,sans-serif;overflow-wrap:break-word}
.tr-page h1,.tr-page h2,.tr-page h3,.tr-page h4{font-family:Literata,Georgia,serif;line-height:1.22;font-weight:560;text-wrap:balance;margin-block:1.9em .55em}
.tr-page h1{font-size:clamp(2rem,1.5rem + 2.4vw,2.9rem);letter-spacing:-.018em;margin-block:0 .7em}
.tr-page h2{font-size:1.6rem;letter-spacing:-.01em}
.tr-page h3{font-size:1.25rem}
.tr-page h4{font-size:1.0625rem}
.tr-page p{margin-block:0 1em}
.tr-page ul,.tr-page ol{margin-block:0 1em;padding-left:1.35em}
.tr-page li{margin:.25em 0}
.tr-page li>p{margin-block:0}
.tr-link{color:var(--accent);text-decoration:underline;text-decoration-thickness:1px;text-underline-offset:.2em}
.tr-link:hover{color:var(--accent-dark);text-decoration-thickness:2px}
.tr-link:focus-visible{outline:3px solid var(--ink);outline-offset:2px}
.tr-page>*,.tr-section>*{max-width:43rem;margin-inline:auto}
.tr-width-wide>*{max-width:64rem}
.tr-page>.tr-section{max-width:none;margin-inline:calc(-1*var(--bleed,1.5rem));margin-block:2rem;padding:2.6rem var(--bleed,1.5rem);background:var(--paper);color:var(--ink)}
.tr-page>.tr-pad-small{padding-block:1.2rem}
.tr-page>.tr-pad-large{padding-block:4.6rem}
.tr-section>:first-child,.tr-column>:first-child{margin-top:0}
.tr-section>:last-child,.tr-column>:last-child{margin-bottom:0}
.tr-page>.tr-section+.tr-section{margin-top:-2rem}
.tr-tone-tint{${paletteCss(tones.tint)}}
.tr-tone-deep{${paletteCss(tones.deep)}}
.tr-columns{display:grid;gap:1.4rem 2.2rem;margin-block:1.4em}
@container (min-width:25rem){.tr-columns-2,.tr-columns-4{grid-template-columns:1fr 1fr}}
@container (min-width:34rem){.tr-columns-3{grid-template-columns:1fr 1fr 1fr}}
@container (min-width:52rem){.tr-columns-4{grid-template-columns:repeat(4,1fr)}}
.tr-column{min-width:0}
.tr-column>blockquote{margin-inline:0}
.tr-row{display:flex;flex-wrap:wrap;gap:.8em;margin-block:1.1em}
.tr-row-middle{justify-content:center}
.tr-row-right{justify-content:flex-end}
.tr-page .tr-row .tr-place{margin:0}
.tr-page blockquote{margin-block:1.4em;padding:.1em 0 .1em 1.3em;border-left:3px solid var(--accent);font-family:Literata,Georgia,serif;font-size:1.12em}
.tr-page blockquote>:last-child{margin-bottom:0}
.tr-page hr{height:0;border:0;border-top:1px solid var(--rule);margin-block:2.4em}
.tr-space-small{height:1rem}
.tr-space-medium{height:2.5rem}
.tr-space-large{height:5rem}
.tr-shelf{margin-block:1.1em}
.tr-page .tr-shelf ul{list-style:none;margin:0;padding:0;border-top:1px solid var(--rule)}
.tr-page .tr-shelf li{display:flex;align-items:stretch;margin:0;border-bottom:1px solid var(--rule)}
.tr-tick{display:flex;align-items:center;padding:0 1em 0 .2em;min-width:2.6em;cursor:pointer}
.tr-tick input{width:1.15em;height:1.15em;margin:0;accent-color:var(--accent)}
.tr-item{flex:1;min-width:0;display:flex;justify-content:space-between;align-items:baseline;flex-wrap:wrap;gap:.1em 1.5em;padding:.7em .2em;color:var(--ink);text-decoration:none}
.tr-item .tr-label{text-decoration:underline;text-decoration-color:var(--accent);text-decoration-thickness:2px;text-underline-offset:.25em}
.tr-item .tr-note{color:var(--soft)}
.tr-item:hover .tr-label{color:var(--accent)}
.tr-item:focus-visible,.tr-tick input:focus-visible{outline:3px solid var(--ink);outline-offset:2px}
.tr-page .tr-take{display:flex;flex-wrap:wrap;gap:.6em;margin:.9em 0 0}
.tr-take button{font:inherit;line-height:1.3;cursor:pointer}${LOOKS_CSS.replaceAll('\n.tr-', '\n.tr-page .tr-')}`
}

/** The whole style sheet of a published page. */
export function pageCss(palette: Palette = DEFAULT_PALETTE): string {
  return `${fontFace('Literata', FONT_FILES.heading, '200 900')}
${fontFace('Hanken Grotesk', FONT_FILES.text, '100 900')}
*{box-sizing:border-box}
html{${paletteCss(palette)};background:var(--paper);-webkit-text-size-adjust:100%}
body{margin:0;min-height:100vh;display:flex;flex-direction:column}
.tr-head,.tr-foot{width:100%;max-width:46rem;margin:0 auto;padding:0 1.5rem}
.tr-head{display:flex;flex-wrap:wrap;align-items:baseline;gap:.4rem 2rem;padding-top:1.6rem;padding-bottom:1.1rem;border-bottom:1px solid var(--rule);font:400 .98rem/1.5 "Hanken Grotesk",system-ui,sans-serif}
.tr-site{font:600 1.15rem/1.4 Literata,Georgia,serif;color:var(--ink);text-decoration:none;margin-right:auto}
.tr-menu{display:flex;flex-wrap:wrap;gap:.2rem 1.4rem;list-style:none;margin:0;padding:0}
.tr-menu a{color:var(--soft);text-decoration:none;display:inline-block;padding:.2rem 0;border-bottom:2px solid transparent}
.tr-menu a:hover{color:var(--ink)}
.tr-menu a[aria-current]{color:var(--ink);border-color:var(--accent)}
.tr-head a:focus-visible{outline:3px solid var(--ink);outline-offset:3px}
.tr-page{flex:1;width:100%;padding:3.2rem var(--bleed,1.5rem) 4rem}
.tr-foot{border-top:1px solid var(--rule);padding-top:1.1rem;padding-bottom:2.2rem;color:var(--soft);font:400 .9rem/1.5 "Hanken Grotesk",system-ui,sans-serif}
@media (max-width:34rem){.tr-head,.tr-foot{padding-inline:1.15rem}.tr-page{--bleed:1.15rem;padding-top:2rem}}
@media (prefers-reduced-motion:no-preference){.tr-button{transition:background-color .12s,color .12s}}${contentCss(palette)}`
}
