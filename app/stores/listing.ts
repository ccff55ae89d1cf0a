import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, reactive, ref, watch } from 'vue'
import { FAMILIES, type Family } from '~~/core/files/mediaType'
import { TOP } from '~~/core/folders/folderItem'
import { DEFAULT_COLUMNS, type ColumnKey } from '~/library/fileColumns'
import { useFolders } from './folders'

/** What narrows the list down. */
export interface Filters {
  q: string
  type: Family[]
  tag: string[]
  used: '' | 'yes' | 'no'
  waits: boolean
  reading: '' | 'waiting' | 'failed'
  addedFrom: string
  addedTo: string
  changedFrom: string
  changedTo: string
  /** bytes */
  least: number | null
  most: number | null
}

const NONE: Filters = {
  q: '',
  type: [],
  tag: [],
  used: '',
  waits: false,
  reading: '',
  addedFrom: '',
  addedTo: '',
  changedFrom: '',
  changedTo: '',
  least: null,
  most: null,
}
export const VIEWS = ['rows', 'tiles', 'tree'] as const
export type LibraryView = (typeof VIEWS)[number]

const isSet = (value: Filters[keyof Filters]) => (Array.isArray(value) ? value.length > 0 : !!value || value === 0)

/** Where the library board stands: folder, filters, order and view. All but the view is in the address. */
export const useListing = defineStore('listing', () => {
  const folder = ref<string | null>(null)
  const bin = ref(false)
  const filters = reactive<Filters>({ ...NONE, type: [], tag: [] })
  /** only right in the open folder, not below it */
  const onlyHere = ref(false)
  /** as the owner chose it; none: the folder's own */
  const sort = ref('')
  const view = useLocalStorage<LibraryView>('trough-library-view', 'rows')
  const columns = useLocalStorage<ColumnKey[]>('trough-library-columns', DEFAULT_COLUMNS)
  const expanded = ref(new Set<string>())

  const filtered = computed(() => Object.values(filters).some(isSet))
  const openFolder = computed(() => (folder.value === null ? undefined : useFolders().tree.get(folder.value)))
  const order = computed(() => sort.value || (openFolder.value?.ownOrder && !filtered.value && !bin.value ? 'own' : '-changed'))

  /** The filters as parameters of an address. */
  function parametersOf(): URLSearchParams {
    const parameters = new URLSearchParams()
    for (const [name, value] of Object.entries(filters)) {
      if (Array.isArray(value)) value.forEach(one => parameters.append(name, one))
      else if (isSet(value)) parameters.set(name, String(value))
    }
    return parameters
  }

  /** What the list asks the server for; the files right in `inside`, where a tree is shown. */
  function queryFor(inside: string | null = folder.value): string {
    const parameters = parametersOf()
    parameters.set('sort', useFolders().tree.get(inside ?? '')?.ownOrder && !sort.value && !filtered.value ? 'own' : order.value)
    if (bin.value) parameters.set('bin', 'true')
    else parameters.set('folder', inside ?? TOP)
    if (!bin.value && filtered.value && !onlyHere.value) parameters.set('below', 'true')
    return parameters.toString()
  }

  /** The board's part of the desk's address. */
  const address = computed<Record<string, string | string[]>>(() => {
    const parameters = parametersOf()
    const names = [...new Set(parameters.keys())]
    return {
      folder: bin.value ? 'bin' : (folder.value ?? TOP),
      ...Object.fromEntries(
        names.map(name => {
          const values = parameters.getAll(name)
          return [name, values.length > 1 ? values : values[0]!]
        }),
      ),
      ...(sort.value && { sort: sort.value }),
      ...(onlyHere.value && { only: 'here' }),
    }
  })

  /** Stands where an address says; what it does not name, or names wrongly, is as usual. */
  function goTo(query: Record<string, unknown>) {
    const texts = (name: string) => [query[name]].flat().filter((value): value is string => typeof value === 'string' && value !== '')
    const text = (name: string) => texts(name)[0] ?? ''
    const number = (name: string) => (/^\d+$/.test(text(name)) ? Number(text(name)) : null)
    const oneOf = <T extends string>(name: string, values: readonly T[]) => values.find(value => value === text(name)) ?? ''
    const place = text('folder')
    bin.value = place === 'bin'
    folder.value = !place || place === TOP || place === 'bin' ? null : place
    Object.assign(filters, {
      q: text('q'),
      type: FAMILIES.filter(family => texts('type').includes(family)),
      tag: texts('tag'),
      used: oneOf('used', ['yes', 'no']),
      waits: text('waits') === 'true',
      reading: oneOf('reading', ['waiting', 'failed']),
      addedFrom: text('addedFrom'),
      addedTo: text('addedTo'),
      changedFrom: text('changedFrom'),
      changedTo: text('changedTo'),
      least: number('least'),
      most: number('most'),
    } satisfies Filters)
    sort.value = text('sort')
    onlyHere.value = text('only') === 'here'
  }

  function clear(name?: keyof Filters) {
    if (name) Object.assign(filters, { [name]: Array.isArray(NONE[name]) ? [] : NONE[name] })
    else Object.assign(filters, { ...NONE, type: [], tag: [] })
  }

  /** Opens a folder; words that were looked for stay behind. */
  function open(id: string | null) {
    bin.value = false
    folder.value = id
    sort.value = ''
    clear()
  }

  function openBin() {
    open(null)
    bin.value = true
  }

  /** Sorts by a column; again by the same: the other way round. */
  function sortBy(column: string, firstDown: boolean) {
    const [up, down] = [column, `-${column}`]
    const [first, second] = firstDown ? [down, up] : [up, down]
    sort.value = order.value === first ? second : first
  }

  // A folder that another tab deleted is left for the one above.
  watch(
    () => useFolders().tree,
    tree => {
      if (folder.value !== null && useFolders().loaded && !tree.get(folder.value)) open(null)
    },
  )

  return {
    folder,
    bin,
    filters,
    onlyHere,
    sort,
    order,
    view,
    columns,
    expanded,
    filtered,
    openFolder,
    address,
    queryFor,
    goTo,
    clear,
    open,
    openBin,
    sortBy,
  }
})
