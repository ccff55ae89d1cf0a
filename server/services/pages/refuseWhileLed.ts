import { Problem } from '../../../core/problem'
import type { Queryable } from '../../db/connection'

import { usesOfTarget } from '../uses/usesOf'

/** @throws Problem 409 with the places in `uses` where other pages lead to this one and `despite` is not set */
export async function refuseWhileLed(db: Queryable, id: string, despite: boolean): Promise<void> {
  const places = despite ? [] : (await usesOfTarget(db, { kind: 'page', id })).filter(({ pageId }) => pageId !== id)
  if (places.length)
    throw new Problem(
      409,
      'Other pages lead to this one.',
      'Lead their buttons and links elsewhere, take them off, or go on all the same: visitors will not see them.',
      { uses: places },
    )
}
