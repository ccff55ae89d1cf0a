import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { ROOT } from './prepare.mjs'

/** Serves a data folder in this process; resolves when visitors can come. */
export async function serve({ data }) {
  process.env.PORT ||= '4180'
  process.env.HOST ||= '127.0.0.1'
  process.env.TROUGH_DATA ||= data
  process.env.NODE_ENV ||= 'production'
  await import(pathToFileURL(join(ROOT, '.output/server/index.mjs')).href)
  const host = ['0.0.0.0', '::'].includes(process.env.HOST) ? 'localhost' : process.env.HOST
  const address = `http://${host}:${process.env.PORT}`
  // The server says 200 as soon as the data folder is open; where that fails, it ends this process.
  while (
    !(await fetch(`${address}/api/health`).then(
      answer => answer.ok,
      () => false,
    ))
  )
    await new Promise(resolve => setTimeout(resolve, 100))
  return address
}
