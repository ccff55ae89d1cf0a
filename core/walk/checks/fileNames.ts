import { at, type Check } from '../check'
import type { Found } from '../finding'

/** Files that are saved under a name that will mislead. */
export const fileNames: Check = {
  name: 'file-name',
  cost: 'tidy',
  title: 'Saved under a name that will mislead',
  why: 'In a visitor’s folder of downloads only the name is left to tell one from the other (common practice).',
  look(_, seen) {
    const told = new Set<string>()
    return seen.flatMap((one): Found[] => {
      const { file } = one
      if (!file?.betterName || told.has(file.id)) return []
      told.add(file.id)
      const { fileName, reason } = file.betterName
      return [
        at(one, {
          words: `“${file.fileName}”: ${reason}`,
          detail: `${file.id} ${file.fileName}`,
          mend: { kind: 'rename', file: file.id, fileName },
          act: `Call it ${fileName}`,
        }),
      ]
    })
  },
}
