import { defineEventHandler } from 'h3'
import type { FileDetails } from '../../../../core/files/fileDetails'
import { accessOf } from '../../../utils/access'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** A file with its editions, the places and bundles that use it, a better name for it, and the other files that hold the same bytes. */
export default defineEventHandler(async (event): Promise<FileDetails> => {
  const { library, bundles } = await useTrough()
  const access = await accessOf(event)
  const file = await library.get(idOf(event))
  const [usedIn, twins, editions, advice, holding] = [
    access.uses(await library.uses(file.id)),
    access.shown(await library.twins(file)),
    await library.editions(file.id),
    await library.adviceOn(file),
    access.shown(await bundles.holding(file.id)),
  ]
  return {
    ...access.shown([file])[0]!,
    bundles: holding.map(({ id, title, size }) => ({ id, title, size })),
    usedIn,
    editions,
    advice,
    twins: twins.map(({ id, title, handle }) => ({ id, title, handle })),
  }
})
