import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { fromTokens } from '../../../core/look/tokens'
import { DOCUMENT, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

const bodySchema = z.object({ tokens: z.unknown(), /** whether the colours of the site become those of the file */ palette: z.boolean() })

/** Takes looks in from a file of design tokens. */
export default defineEventHandler(async event => {
  const { looks } = await useTrough()
  const { tokens, palette: wanted } = await parseBody(event, bodySchema, { most: DOCUMENT })
  const { looks: given, palette } = fromTokens(tokens)
  const added = await looks.take(given)
  if (wanted && palette) await looks.setStyle({ ...(await looks.style()), palette })
  return { added: added.map(look => look.name), palette: palette !== undefined }
})
