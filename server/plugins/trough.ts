import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { defineNitroPlugin } from 'nitropack/runtime'
import { ownAddress } from '../environment'
import { laterTrouble } from '../log'
import { writeSafely } from '../store/safely'
import { useTrough } from '../utils/trough'

export default defineNitroPlugin(nitro => {
  const started = useTrough()
  started
    .then(async trough => {
      if (!(await trough.account.isSetUp())) {
        console.log(`\nThis Trough has no owner yet. Open /desk and enter the set-up code: ${trough.account.code}\n`)
      }
      await writeSafely(join(trough.folder, 'running.json'), JSON.stringify({ url: ownAddress(process.env) }), 0o600)
      // What cannot be made good now must not keep visitors out.
      await trough.resume().catch(laterTrouble('something from before the last stop could not be made good'))
    })
    .catch((error: Error) => {
      console.error(`\nTrough cannot start. ${error.message}\n`)
      process.exit(1)
    })
  nitro.hooks.hook('close', async () => {
    const trough = await started
    await rm(join(trough.folder, 'running.json'), { force: true })
    await trough.close()
  })
})
