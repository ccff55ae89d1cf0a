import type { H3Event } from 'h3'
import { broughtInto, type BundleDetails } from '../../core/bundle/bundleEntry'
import { Problem } from '../../core/problem'
import { accessOf } from './access'
import { useTrough } from './trough'

/**
 * A bundle for who sees all that was put into it.
 *
 * @throws Problem 403 where something in it lies where they see nothing: names and sizes are told with it
 */
export async function seenBundle(event: H3Event, id: string): Promise<BundleDetails> {
  const [access, details] = [await accessOf(event), await (await useTrough()).bundles.details(id)]
  await access.mustSee(broughtInto(details.entries)).catch((error: unknown) => {
    if (!(error instanceof Problem)) throw error
    throw new Problem(403, 'There is something in this bundle that you may not see.', 'Ask the owner of the site to compose it.')
  })
  return { ...details, file: access.shown([details.file])[0]! }
}
