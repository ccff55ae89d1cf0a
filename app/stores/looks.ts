import { z } from 'zod'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { fileItemSchema } from '~~/core/files/fileItem'
import type { Appearance } from '~~/core/look/appearance'
import { BUILT_IN_LOOKS, DEFAULT_LOOK, builtInLooks } from '~~/core/look/builtin'
import { appearanceCss } from '~~/core/look/buttonCss'
import { fontFaces } from '~~/core/look/fontFaces'
import { ALL_FONTS, ownTypeface } from '~~/core/look/typefaces'
import { lookSchema, lookUseSchema, type Look, type LookUse, type NewLook } from '~~/core/look/look'
import { tonePalettes } from '~~/core/look/palette'
import { DEFAULT_STYLE, type SiteStyle, siteStyleSchema } from '~~/core/look/siteStyle'
import { fillHref } from '~~/core/page/href'
import { targetFacts } from '~~/core/page/placeholders'
import { createQueue } from '~~/core/queue'
import { ask, tell } from '~/composables/api'
import { useLibrary } from './library'
import { useNotices } from './notices'

const listSchema = z.object({
  items: z.array(lookSchema),
  uses: z.array(lookUseSchema),
  style: siteStyleSchema,
  files: z.array(fileItemSchema),
})
const takenSchema = z.object({ added: z.array(z.string()), palette: z.boolean() })

/** The looks of the site, and the colours and type that feed them. */
export const useLooks = defineStore('looks', () => {
  const items = ref<Look[]>(BUILT_IN_LOOKS)
  const uses = ref<LookUse[]>([])
  const style = ref<SiteStyle>(DEFAULT_STYLE)

  /** Where a picture behind words is had; undefined where it is gone. */
  function pictureOf(id: string): string | undefined {
    const file = useLibrary().known.get(id)
    return file && !file.deleted ? fillHref(targetFacts(file)) : undefined
  }

  const byId = computed(() => new Map(items.value.map(look => [look.id, look])))
  /** What a button gets that asks for this look, also where it is gone. */
  const lookOf = (id: string): Look => byId.value.get(id) ?? DEFAULT_LOOK
  /** The typefaces a site can have, for where pages are shown on the desk. */
  const faces = computed(() => fontFaces([...ALL_FONTS, ...style.value.own.map(each => ownTypeface(each).font)], 'swap'))
  const palettes = computed(() => tonePalettes(style.value.palette))
  /** The rules of all looks, for where any of them may be drawn. */
  const css = computed(() => items.value.map(look => appearanceCss(`tr-look-${look.id}`, look.appearance, pictureOf)).join('\n'))

  /** Requests reach the server in the order they were made. What is shown may be newer than an answer, so an answer never replaces it. */
  const inTurn = createQueue()
  /** counts what was shown before the server knew of it */
  let shown = 0
  let known = false

  async function load(): Promise<void> {
    const before = shown
    const { files, ...answer } = await inTurn(() => ask(listSchema, '/looks'))
    if (shown !== before) return load()
    useLibrary().learn(files)
    ;({ items: items.value, uses: uses.value, style: style.value } = answer)
    known = true
  }

  /** Resolves once looks are there to be shown; those that were there before are shown meanwhile, and read anew behind that. */
  async function ready(): Promise<void> {
    if (!known) return load()
    load().catch(useNotices().refused)
  }

  async function create(look: NewLook): Promise<Look> {
    const made = await inTurn(() => ask(lookSchema, '/looks', 'POST', look))
    items.value = [...items.value, made]
    return made
  }

  async function rename(id: string, name: string) {
    const now = await inTurn(() => ask(lookSchema, `/looks/${id}`, 'PATCH', { name }))
    items.value = items.value.map(look => (look.id === id ? { ...look, name: now.name } : look))
  }

  async function change(id: string, appearance: Appearance) {
    show(id, appearance)
    await inTurn(() => tell(`/looks/${id}`, 'PATCH', { appearance }))
  }

  /** Shows an appearance at once, before it is saved. */
  function show(id: string, appearance: Appearance) {
    shown++
    items.value = items.value.map(look => (look.id === id ? { ...look, appearance } : look))
  }

  async function remove(id: string, instead?: string) {
    await tell(`/looks/${id}${instead ? `?instead=${instead}` : ''}`, 'DELETE')
    await load()
  }

  async function setStyle(changed: SiteStyle) {
    shown++
    style.value = changed
    items.value = [...builtInLooks(changed), ...items.value.filter(({ builtIn }) => !builtIn)]
    await inTurn(() => tell('/style', 'PUT', changed))
  }

  /** Takes looks in from a tokens file. */
  async function takeTokens(tokens: unknown, palette: boolean) {
    const taken = await ask(takenSchema, '/looks/tokens', 'POST', { tokens, palette })
    await load()
    return taken
  }

  return {
    items,
    uses,
    style,
    byId,
    pictureOf,
    lookOf,
    faces,
    palettes,
    css,
    load,
    ready,
    create,
    rename,
    change,
    show,
    remove,
    setStyle,
    takeTokens,
  }
})
