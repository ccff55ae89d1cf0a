import { FILE_RIGHTS, FILE_RIGHT_WORDS, SITE_RIGHT_WORDS, mayInPath, type Holder, type Rights } from '~~/core/rights/rights'
import { readySetOf } from '~~/core/rights/ready'

/** `In “Yard” and below: put files in, put in new editions`: what may be done in each place of the library, a line each, then the rest. */
export function rightsLines(rights: Rights): string[] {
  const { tree } = useFolders()
  return [
    ...rights.files.map(({ folder, may }) => {
      const what = FILE_RIGHTS.filter(right => may.includes(right)).map(right => FILE_RIGHT_WORDS[right])
      const name = folder === null ? undefined : tree.get(folder)?.name
      const where = folder === null ? 'In the whole library' : name === undefined ? 'In a folder that is gone' : `In “${name}” and below`
      return `${where}: ${what.join(', ')}`
    }),
    ...(rights.site.length ? [`On the site: ${rights.site.map(right => SITE_RIGHT_WORDS[right]).join(', ')}`] : []),
  ]
}

/** What somebody may do, in a few words. */
export function rightsInShort(holder: Holder): string {
  if (holder === null) return 'Everything'
  const set = readySetOf(holder)
  const everywhere = mayInPath(holder, 'see', [])
  const { tree } = useFolders()
  const places = holder.files.flatMap(({ folder }) => (folder === null ? [] : (tree.get(folder)?.name ?? 'a folder that is gone')))
  const what = set?.title ?? (holder.files.length || holder.site.length ? 'Of your own choice' : 'Nothing yet')
  return everywhere || !places.length ? what : `${what}: ${places.join(', ')}`
}
