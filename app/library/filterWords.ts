import { formatSize } from '~~/core/files/size'
import type { Family } from '~~/core/files/mediaType'
import type { Filters } from '~/stores/listing'

export const FAMILY_WORDS: Record<Family, string> = {
  document: 'Documents',
  sheet: 'Sheets',
  slides: 'Slides',
  picture: 'Pictures',
  sound: 'Sound',
  film: 'Film',
  archive: 'Zips',
  other: 'Other kinds',
}

/** A filter in a few words, with what takes it away. */
export interface FilterWord {
  words: string
  clear: keyof Filters
  /** the one value that goes, where there are several */ value?: string
}

const day = (iso: string) => new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' }).format(new Date(`${iso}T12:00`))

function span(name: string, from: string, to: string, keys: [keyof Filters, keyof Filters]): FilterWord[] {
  return [
    ...(from ? [{ words: `${name} ${day(from)} or later`, clear: keys[0] }] : []),
    ...(to ? [{ words: `${name} ${day(to)} or earlier`, clear: keys[1] }] : []),
  ]
}

/** Every filter that is set, as removable words. */
export function filterWords(filters: Filters): FilterWord[] {
  return [
    ...(filters.q ? [{ words: `“${filters.q}”`, clear: 'q' as const }] : []),
    ...filters.type.map(type => ({ words: FAMILY_WORDS[type], clear: 'type' as const, value: type })),
    ...filters.tag.map(tag => ({ words: `tagged ${tag}`, clear: 'tag' as const, value: tag })),
    ...(filters.used ? [{ words: filters.used === 'yes' ? 'used' : 'not used', clear: 'used' as const }] : []),
    ...(filters.waits ? [{ words: 'newer edition waiting', clear: 'waits' as const }] : []),
    ...(filters.reading
      ? [{ words: filters.reading === 'failed' ? 'could not be read' : 'still to be read', clear: 'reading' as const }]
      : []),
    ...span('added', filters.addedFrom, filters.addedTo, ['addedFrom', 'addedTo']),
    ...span('changed', filters.changedFrom, filters.changedTo, ['changedFrom', 'changedTo']),
    ...(filters.least !== null ? [{ words: `${formatSize(filters.least)} or more`, clear: 'least' as const }] : []),
    ...(filters.most !== null ? [{ words: `${formatSize(filters.most)} or less`, clear: 'most' as const }] : []),
  ]
}
