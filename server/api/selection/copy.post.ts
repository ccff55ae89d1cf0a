import { defineEventHandler } from 'h3'
import { copySchema } from '../../../core/files/selection'
import { accessOf } from '../../utils/access'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const { to, ...selection } = await parseBody(event, copySchema, { most: MANY })
  const access = await accessOf(event)
  await access.mustSee(selection)
  access.mustPlace('put', to)
  return (await useTrough()).library.copy(selection, to)
})
