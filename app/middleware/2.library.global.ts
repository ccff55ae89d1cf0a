import { isWrittenByBoard } from '~/library/boardAddress'
import { DOORS } from '~/rights/doors'

/** Keeps the library board's part of the address on every address of the desk, and goes where an address says. */
export default defineNuxtRouteMiddleware(to => {
  if (!to.path.startsWith('/desk') || DOORS.includes(to.path)) return
  const listing = useListing()
  // Every address the board writes names a folder; one that names none was written without the board in mind.
  if (to.query.folder !== undefined) {
    if (!isWrittenByBoard(to)) listing.goTo(to.query)
    return
  }
  return navigateTo({ path: to.path, hash: to.hash, query: { ...to.query, ...listing.address } })
})
