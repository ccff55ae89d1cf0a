import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async () => {
  const { looks } = await useTrough()
  return { items: await looks.list(), uses: await looks.uses(), style: await looks.style() }
})
