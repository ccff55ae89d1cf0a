import { defineEventHandler, setHeader } from 'h3'
import { toTokens } from '../../../core/look/tokens'
import { useTrough } from '../../utils/trough'

/** All looks and the palette, as a file of design tokens. */
export default defineEventHandler(async event => {
  const { looks } = await useTrough()
  setHeader(event, 'Content-Disposition', 'attachment; filename="looks.tokens.json"')
  return toTokens(await looks.list(), (await looks.style()).palette)
})
