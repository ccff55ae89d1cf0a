import { defineEventHandler } from 'h3'
import { fillPictures } from '../../../core/look/fillPictures'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async () => {
  const { looks, library } = await useTrough()
  const items = await looks.list()
  return {
    items,
    uses: await looks.uses(),
    style: await looks.style(),
    files: await library.byId(items.flatMap(({ appearance }) => fillPictures(appearance))),
  }
})
