import { defineEventHandler } from 'h3'
import { describeSchema } from '../../../core/files/selection'
import { accessOf } from '../../utils/access'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const described = await parseBody(event, describeSchema, { most: MANY })
  const access = await accessOf(event)
  const all = [described, ...described.each]
  await access.mustFiles('edit', [...described.files, ...described.each.map(({ id }) => id)])
  await access.mustFiles(
    'see',
    all.flatMap(({ picture }) => picture ?? []),
  )
  if (all.some(({ gate }) => gate !== undefined)) access.must('gates')
  return { before: await (await useTrough()).library.describe(described) }
})
