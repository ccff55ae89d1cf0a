import { defineEventHandler } from 'h3'
import { iconPictures } from '../../../core/shelf/icons'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async () => {
  const { shelfLooks, siteIcons, library } = await useTrough()
  const icons = await siteIcons.list()
  return { items: await shelfLooks.list(), icons, files: await library.byId(iconPictures(icons)) }
})
