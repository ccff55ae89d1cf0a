import { createHash } from 'node:crypto'
import { defineNitroPlugin } from 'nitropack/runtime'
import { deskPolicy } from '../deskHeaders'

/** Gives the desk's page a policy that names the scripts standing in it. */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:response', (response, { event }) => {
    if (typeof response.body !== 'string') return
    const inline = [...response.body.matchAll(/<script(?![^>]*\bsrc=)[^>]*>([\s\S]*?)<\/script>/g)].map(([, script]) => script!)
    event.node.res.setHeader(
      'Content-Security-Policy',
      deskPolicy(inline.map(script => createHash('sha256').update(script).digest('base64'))),
    )
    event.node.res.setHeader('Cache-Control', 'no-store')
    // Whoever looks for holes of a framework need not be told which it is.
    delete response.headers?.['x-powered-by']
  })
})
