import type { Ref } from 'vue'
import type { CatalogueItem } from '~~/core/catalogue/catalogue'
import type { LocalFile } from '~/composables/localFiles'

/** Files that hold tables, by their names. */
export const TABLES = /\.(?:csv|tsv|xlsx|xlsm|ods|json)$/i

/** The table that is looked at before it comes in: of the computer, of the library, or the next edition of the one that is followed. */
export function useComingTable(catalogue: Ref<CatalogueItem | undefined>) {
  const library = useLibrary()

  const tableFile = shallowRef<File | { id: string; name: string }>()
  /** what comes along with a table */
  const along = shallowRef<LocalFile[]>()
  /** The table that is followed, where it has an edition that has not come in. */
  const newTable = computed(() => {
    const { source } = catalogue.value ?? {}
    const file = source && library.known.get(source.file)
    return file && file.edition !== source.edition ? file : undefined
  })
  watch(
    () => catalogue.value?.source?.file,
    file => void (file && library.meet([file])),
    { immediate: true },
  )
  const lookAt = ({ id: file, fileName }: { id: string; fileName: string }) => (tableFile.value = { id: file, name: fileName })
  async function lookAtSource() {
    const [file] = await library.meet([catalogue.value!.source!.file])
    if (file) lookAt(file)
  }
  function closeTable() {
    tableFile.value = undefined
    along.value = undefined
  }

  async function chooseTable() {
    const [file] = await chooseFiles({ multiple: false })
    if (file) tableFile.value = file
  }

  return { tableFile, along, newTable, lookAt, lookAtSource, chooseTable, closeTable }
}
