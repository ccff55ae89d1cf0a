/** The built-in looks, in the order they are offered. */
export const LOOK_NAMES = ['slab', 'rim', 'strap'] as const
export type LookName = (typeof LOOK_NAMES)[number]

/** What each built-in look is, in a few words for the desk. */
export const LOOK_WORDS: Record<LookName, { title: string, hint: string }> = {
  slab: { title: 'Slab', hint: 'Filled; the one thing to press' },
  rim: { title: 'Rim', hint: 'Outlined; several side by side' },
  strap: { title: 'Strap', hint: 'Full width; lists of downloads' },
}

const SHARED = `
.tr-place{margin-block:1.1em}
.tr-middle{text-align:center}
.tr-right{text-align:right}
.tr-button{display:inline-block;max-width:100%;box-sizing:border-box;padding:.7em 1.35em;border:2px solid;border-radius:6px;font-size:1em;line-height:1.3;text-align:center;text-decoration:none;overflow-wrap:anywhere}
.tr-label{display:block;font-weight:600}
.tr-note{display:block;font-size:.82em;margin-top:.1em}
.tr-spoken{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%);white-space:nowrap}`

/** The style sheet of buttons in all built-in looks, in all their states; colours come from the palette around them. */
export const LOOKS_CSS = `${SHARED}
.tr-button:focus-visible{outline:3px solid var(--ink);outline-offset:3px}
.tr-look-slab{background:var(--accent);border-color:var(--accent);color:var(--on-accent)}
.tr-look-slab:hover{background:var(--accent-dark);border-color:var(--accent-dark)}
.tr-look-rim{background:var(--paper);border-color:var(--accent);color:var(--accent)}
.tr-look-rim:hover{background:var(--accent);color:var(--on-accent)}
.tr-look-strap{display:flex;justify-content:space-between;align-items:baseline;flex-wrap:wrap;gap:.1em 1.5em;padding:.85em .2em;border-width:1px 0;border-radius:0;border-color:var(--rule);color:var(--ink);text-align:left}
.tr-look-strap .tr-label{text-decoration:underline;text-decoration-color:var(--accent);text-decoration-thickness:2px;text-underline-offset:.25em}
.tr-look-strap .tr-note{color:var(--soft)}
.tr-look-strap:hover .tr-label{color:var(--accent)}
.tr-place:has(>.tr-look-strap)+.tr-place:has(>.tr-look-strap){margin-top:calc(-1.1em - 1px)}`
