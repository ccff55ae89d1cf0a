import { handlers } from '#nitro-internal-virtual/server-handlers'
import { defineNitroPlugin } from 'nitropack/runtime'
import { ROUTES } from '../../core/rights/routes'

/** Refuses to start where a request of the API does not say what it needs: it would be open to whoever is signed in. */
export default defineNitroPlugin(() => {
  const undeclared = handlers
    .filter(({ route, middleware }) => !middleware && route?.startsWith('/api/') && !route.includes('**'))
    .map(({ route, method }) => `${(method ?? 'all').toUpperCase()} ${route!.slice('/api'.length)}`)
    .filter(request => !(request in ROUTES))
  if (!undeclared.length) return
  console.error(`\nTrough cannot start. Say in core/rights/routes.ts what is needed for: ${undeclared.join(', ')}\n`)
  process.exit(1)
})
