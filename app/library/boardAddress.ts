import { watch } from 'vue'
import type { RouteLocationNormalized } from 'vue-router'

/** Where the board itself is on its way to: one for each way that has not ended. */
const own: string[] = []

/** An address that the board has just written: it follows the board, not the board it, which may have gone on meanwhile. */
export const isWrittenByBoard = (to: RouteLocationNormalized): boolean => own.includes(to.fullPath)

/** Where the library board stands is in the address: another folder is a step one can go back from, a filter is not. */
export function useBoardAddress(): void {
  const router = useRouter()
  const route = useRoute()
  const listing = useListing()
  let written: string[] = []
  watch(
    () => JSON.stringify(listing.address),
    async () => {
      const { address } = listing
      const rest = Object.fromEntries(Object.entries(route.query).filter(([name]) => !written.includes(name) && !(name in address)))
      const query = { ...rest, ...address }
      written = Object.keys(address)
      const { fullPath } = router.resolve({ path: route.path, hash: route.hash, query })
      // With one on its way elsewhere, going where one stands is what calls it back.
      if (fullPath === route.fullPath && !own.length) return
      own.push(fullPath)
      try {
        await router[address.folder === route.query.folder ? 'replace' : 'push']({ path: route.path, hash: route.hash, query })
      } finally {
        own.splice(own.indexOf(fullPath), 1)
      }
    },
    { immediate: true },
  )
}
