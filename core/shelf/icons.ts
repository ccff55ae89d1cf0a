import { z } from 'zod'
import { typeTag } from '../files/mediaType'
import type { Node, Tree } from '../folders/folderTree'
import type { TargetFacts } from '../page/placeholders'

/** What an icon stands for: the short name of a type, a folder with all below it, a tag, or one file. */
export const ICON_KINDS = ['file', 'folder', 'tag', 'type'] as const

const OUTLINE = /^[MmLlHhVvCcSsQqTtAaZz\d\s,.e+-]*$/

export const siteIconSchema = z.object({
  of: z.object({ kind: z.enum(ICON_KINDS), /** identity, tag, or short name such as PDF */ value: z.string().min(1).max(100) }),
  icon: z.discriminatedUnion('kind', [
    /** a picture of the library, drawings among them: it is drawn by the server, and nothing of its code reaches visitors */
    z.object({ kind: z.literal('picture'), /** identity of the picture's file */ file: z.string().min(1).max(40) }),
    /** an outline in a square of 24 (SVG 2, path data) */
    z.object({
      kind: z.literal('drawn'),
      name: z.string().max(60),
      path: z.string().min(1).max(4000).regex(OUTLINE, 'This is not the outline of an icon.'),
    }),
  ]),
})
export type SiteIcon = z.infer<typeof siteIconSchema>
export const siteIconsSchema = z.array(siteIconSchema).max(200, 'Keep it to 200 icons.')

/** What of a file says which icon it has. */
interface Marked {
  id: string
  folder: string | null
  tags: string[]
  mediaType: string
}

/** An icon as it is drawn: an outline, or a picture of the library. */
export type DrawnIcon = Extract<SiteIcon['icon'], { kind: 'drawn' }> | { kind: 'picture'; picture: TargetFacts }

/** The icon of a file: its own, else that of the nearest folder, else that of the first of its tags with one, else that of its type. */
export function iconOf(
  { id, folder, tags, mediaType }: Marked,
  icons: readonly SiteIcon[],
  tree: Tree<Node>,
): SiteIcon['icon'] | undefined {
  const of = (kind: SiteIcon['of']['kind'], value: string) => icons.find(icon => icon.of.kind === kind && icon.of.value === value)?.icon
  const first = (kind: SiteIcon['of']['kind'], values: string[]) => {
    for (const value of values) {
      const icon = of(kind, value)
      if (icon) return icon
    }
    return undefined
  }
  const folders = tree.pathTo(folder).map(each => each.id)
  return of('file', id) ?? first('folder', folders.toReversed()) ?? first('tag', tags) ?? of('type', typeTag(mediaType))
}

/** Identities of pictures that icons show. */
export const iconPictures = (icons: readonly SiteIcon[]): string[] =>
  icons.flatMap(({ icon }) => (icon.kind === 'picture' ? [icon.file] : []))

/** An icon as it is drawn; undefined where there is none, or its picture is gone. */
export function drawnIcon(icon: SiteIcon['icon'] | undefined, pictureOf: (file: string) => TargetFacts | undefined): DrawnIcon | undefined {
  if (icon?.kind !== 'picture') return icon
  const picture = pictureOf(icon.file)
  return picture?.picture ? { kind: 'picture', picture } : undefined
}
