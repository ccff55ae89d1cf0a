import { looksCss } from '../look/builtin'
import { DEFAULT_PALETTE, type Palette } from '../look/palette'

/** Where the site's own fonts are served. */
export const FONT_FILES = {
  heading: '/_fonts/literata/literata-latin-wght-normal.woff2',
  text: '/_fonts/hanken/hanken-grotesk-latin-wght-normal.woff2',
}

const fontFace = (family: string, url: string, weights: string) =>
  `@font-face{font-family:"${family}";src:url(${url}) format("woff2");font-weight:${weights};font-display:swap}`

/** How the words, lists and buttons of a page look, under `.tr-page`; shared with the editor. */
export function contentCss(palette: Palette = DEFAULT_PALETTE): string {
  const { ink, soft, accent, accentDark, line } = palette
  return `
.tr-page{color:${ink};font:400 1.0625rem/1.62 "Hanken Grotesk",system-ui,sans-serif;overflow-wrap:break-word}
.tr-page h1,.tr-page h2,.tr-page h3,.tr-page h4{font-family:Literata,Georgia,serif;line-height:1.22;font-weight:560;text-wrap:balance;margin:1.9em 0 .55em}
.tr-page h1{font-size:clamp(2rem,1.5rem + 2.4vw,2.9rem);letter-spacing:-.018em;margin:0 0 .7em}
.tr-page h2{font-size:1.6rem;letter-spacing:-.01em}
.tr-page h3{font-size:1.25rem}
.tr-page h4{font-size:1.0625rem}
.tr-page p{margin:0 0 1em}
.tr-page ul,.tr-page ol{margin:0 0 1em;padding-left:1.35em}
.tr-page li{margin:.25em 0}
.tr-page li>p{margin:0}
.tr-link{color:${accent};text-decoration:underline;text-decoration-thickness:1px;text-underline-offset:.2em}
.tr-link:hover{color:${accentDark};text-decoration-thickness:2px}
.tr-link:focus-visible{outline:3px solid ${ink};outline-offset:2px}
.tr-shelf{margin:1.1em 0}
.tr-page .tr-shelf ul{list-style:none;margin:0;padding:0;border-top:1px solid ${line}}
.tr-page .tr-shelf li{display:flex;align-items:stretch;margin:0;border-bottom:1px solid ${line}}
.tr-tick{display:flex;align-items:center;padding:0 1em 0 .2em;min-width:2.6em;cursor:pointer}
.tr-tick input{width:1.15em;height:1.15em;margin:0;accent-color:${accent}}
.tr-item{flex:1;min-width:0;display:flex;justify-content:space-between;align-items:baseline;flex-wrap:wrap;gap:.1em 1.5em;padding:.7em .2em;color:${ink};text-decoration:none}
.tr-item .tr-label{text-decoration:underline;text-decoration-color:${accent};text-decoration-thickness:2px;text-underline-offset:.25em}
.tr-item .tr-note{color:${soft}}
.tr-item:hover .tr-label{color:${accent}}
.tr-item:focus-visible,.tr-tick input:focus-visible{outline:3px solid ${ink};outline-offset:2px}
.tr-page .tr-take{display:flex;flex-wrap:wrap;gap:.6em;margin:.9em 0 0}
.tr-take button{font:inherit;line-height:1.3;cursor:pointer}${looksCss(palette).replaceAll('\n.tr-', '\n.tr-page .tr-')}`
}

/** The whole style sheet of a published page. */
export function pageCss(palette: Palette = DEFAULT_PALETTE): string {
  const { paper, ink, soft, accent, line } = palette
  return `${fontFace('Literata', FONT_FILES.heading, '200 900')}
${fontFace('Hanken Grotesk', FONT_FILES.text, '100 900')}
*{box-sizing:border-box}
html{background:${paper};-webkit-text-size-adjust:100%}
body{margin:0;min-height:100vh;display:flex;flex-direction:column}
.tr-head,.tr-page,.tr-foot{width:100%;max-width:46rem;margin:0 auto;padding:0 1.5rem}
.tr-head{display:flex;flex-wrap:wrap;align-items:baseline;gap:.4rem 2rem;padding-top:1.6rem;padding-bottom:1.1rem;border-bottom:1px solid ${line};font:400 .98rem/1.5 "Hanken Grotesk",system-ui,sans-serif}
.tr-site{font:600 1.15rem/1.4 Literata,Georgia,serif;color:${ink};text-decoration:none;margin-right:auto}
.tr-menu{display:flex;flex-wrap:wrap;gap:.2rem 1.4rem;list-style:none;margin:0;padding:0}
.tr-menu a{color:${soft};text-decoration:none;display:inline-block;padding:.2rem 0;border-bottom:2px solid transparent}
.tr-menu a:hover{color:${ink}}
.tr-menu a[aria-current]{color:${ink};border-color:${accent}}
.tr-head a:focus-visible{outline:3px solid ${ink};outline-offset:3px}
.tr-page{flex:1;padding-top:3.2rem;padding-bottom:4rem}
.tr-foot{border-top:1px solid ${line};padding-top:1.1rem;padding-bottom:2.2rem;color:${soft};font:400 .9rem/1.5 "Hanken Grotesk",system-ui,sans-serif}
@media (max-width:34rem){.tr-head,.tr-page,.tr-foot{padding-left:1.15rem;padding-right:1.15rem}.tr-page{padding-top:2rem}}
@media (prefers-reduced-motion:no-preference){.tr-button{transition:background-color .12s,color .12s}}${contentCss(palette)}`
}
