import { defineEventHandler } from 'h3'
import { publishSchema } from '../../../../core/page/pageItem'
import { Problem } from '../../../../core/problem'
import { accessOf } from '../../../utils/access'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Puts a draft live; what would stop visitors holds it back. */
export default defineEventHandler(async event => {
  const { pages, walk } = await useTrough()
  const { despite } = await parseBody(event, publishSchema)
  const findings = despite ? [] : await walk.blocking(idOf(event))
  if (findings.length)
    throw new Problem(
      409,
      findings.length === 1 ? 'One place would stop visitors.' : `${findings.length} places would stop visitors.`,
      'Mend them, or publish all the same.',
      { findings },
    )
  return pages.publish(idOf(event), { despite, by: (await accessOf(event)).by })
})
