/**
 * A part of the desk that is fetched when it is first called for may not come: the connection is lost, or Trough was updated since. What
 * was pressed would do nothing, and say nothing.
 */
export default defineNuxtPlugin(nuxt => {
  nuxt.hook('app:chunkError', () =>
    useNotices().say('A part of the desk could not be fetched. Load the desk again; what is not saved yet is asked about first.', {
      tone: 'attention',
      action: { label: 'Load again', run: () => window.location.reload() },
    }),
  )
})
