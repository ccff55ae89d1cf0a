import { defineEventHandler } from 'h3'
import { iconChoiceSchema } from '../../services/site/icon'
import { accessOf } from '../../utils/access'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const { icon } = await useTrough()
  const { file } = await parseBody(event, iconChoiceSchema)
  await (await accessOf(event)).mustFiles('see', file ? [file] : [])
  await icon.choose(file)
  return { own: (await icon.get()).own }
})
