import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT, ensureBuilt, ensureInstalled, run } from './prepare.mjs'
import { serve } from './serve.mjs'

ensureInstalled()
ensureBuilt()
const data = process.env.TROUGH_DATA || join(ROOT, 'demo-data')
if (!existsSync(data)) {
  console.log('Making the demo\'s files and pages…')
  run('node', '--import', 'tsx', 'demo/build.ts', data)
}
const address = await serve({ data })
console.log(`
Marlpit Pottery Supply, the demo, is ready.
  What visitors see   ${address}/
  The desk            ${address}/desk
  Sign in with        owner@marlpit.example  /  marlpit-demo
`)
