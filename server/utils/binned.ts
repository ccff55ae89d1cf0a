import type { H3Event } from 'h3'
import { forGoodSchema } from '../../core/files/selection'
import { accessOf } from './access'
import { MANY, parseBody } from './request'

/**
 * The files of the bin that a request names, null for all of them.
 *
 * @throws Problem 403 or 404 where they may not be deleted
 */
export async function binned(event: H3Event): Promise<string[] | null> {
  const { files } = await parseBody(event, forGoodSchema, { most: MANY })
  const access = await accessOf(event)
  if (files) await access.mustFiles('delete', files)
  else access.mustEverywhere('delete')
  return files
}
