import { existsSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT, ensureBuilt, ensureInstalled, run } from './prepare.mjs'
import { serve } from './serve.mjs'

ensureInstalled()
ensureBuilt()
const data = process.env.TROUGH_DATA || join(ROOT, 'demo-data')
if (!existsSync(data) || !readdirSync(data).length) {
  console.log("Making the demo's files and pages…")
  run('node', '--import', 'tsx', 'demo/build.ts', data)
}
const address = await serve({ data })

const OWNER = { email: 'owner@marlpit.example', password: 'marlpit-demo' }
/** Whether the data folder is the demo's, whose owner everybody knows. */
async function isDemo() {
  const answer = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(OWNER),
  })
  if (answer.ok)
    await fetch(`${address}/api/session`, {
      method: 'DELETE',
      headers: {
        Cookie: answer.headers
          .getSetCookie()
          .map(line => line.split(';')[0])
          .join('; '),
      },
    })
  return answer.ok
}

console.log(
  (await isDemo())
    ? `
Marlpit Pottery Supply, the demo, is ready.
  What visitors see   ${address}/
  The desk            ${address}/desk
  Sign in with        ${OWNER.email}  /  ${OWNER.password}
`
    : `
${data} holds another site than the demo; it is served as it is.
  What visitors see   ${address}/
  The desk            ${address}/desk
For the demo, set TROUGH_DATA to an empty folder, or leave it out.
`,
)
