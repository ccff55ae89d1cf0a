import { ensureBuilt, ensureInstalled } from './prepare.mjs'
import { serve } from './serve.mjs'

ensureInstalled()
ensureBuilt()
const address = await serve({ data: 'data' })
console.log(`Trough is ready. The desk is at ${address}/desk`)
