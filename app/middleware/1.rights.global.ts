import { DOORS } from '~/rights/doors'
import { mayOpen } from '~/rights/boards'

/** Knows what may be done before anything is shown, and leads away from boards that are not for who asks. */
export default defineNuxtRouteMiddleware(async to => {
  if (!to.path.startsWith('/desk') || DOORS.includes(to.path)) return
  const rights = useRights()
  // Where the server does not answer, the desk says so itself.
  if (!rights.account) await rights.load().catch(() => undefined)
  if (mayOpen(rights, to.path)) return
  const notices = useNotices()
  // What shows notices is there once the desk stands.
  onNuxtReady(() => notices.say('That board is not among what you may do here. Ask the owner of the site for it.', { tone: 'attention' }))
  return navigateTo('/desk')
})
