import { defineEventHandler } from 'h3'
import { targetSchema } from '../../../core/page/schema'
import { accessOf } from '../../utils/access'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Where a target is led to or shown, and bundles that hold it; asked by POST, since it may be a long address. */
export default defineEventHandler(async event => {
  const target = await parseBody(event, targetSchema)
  const access = await accessOf(event)
  if (target.kind === 'file') await access.mustFiles('see', [target.id])
  const { uses, bundles } = await (await useTrough()).replacing.places(target)
  return { uses: access.uses(uses), bundles: await access.seen(bundles, ({ bundleId }) => bundleId) }
})
