import { defineNitroPlugin } from 'nitropack/runtime'
import { useTrough } from '../utils/trough'

export default defineNitroPlugin((nitro) => {
  const started = useTrough()
  started.then(async (trough) => {
    if (!await trough.account.isSetUp()) {
      console.log(`\nThis Trough has no owner yet. Open /desk and enter the set-up code: ${trough.account.code}\n`)
    }
    // What cannot be made good now must not keep visitors out.
    await trough.resume().catch(error => console.error('Something from before the last stop could not be made good:', error))
  }).catch((error: Error) => {
    console.error(`\nTrough cannot start. ${error.message}\n`)
    process.exit(1)
  })
  nitro.hooks.hook('close', async () => {
    await (await started).close()
  })
})
