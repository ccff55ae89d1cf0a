import { defineEventHandler } from 'h3'
import { iconChoiceSchema } from '../../services/site/icon'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const { icon } = await useTrough()
  await icon.choose((await parseBody(event, iconChoiceSchema)).file)
  return { own: (await icon.get()).own }
})
