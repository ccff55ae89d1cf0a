import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { placeSchema } from '../../../../core/folders/folderItem'
import { accessOf } from '../../../utils/access'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

const bagSchema = z.object({ folder: placeSchema.default(null) })

/** Begins to bring in a bag that lies in the library as a zip. */
export default defineEventHandler(async event => {
  const { folder } = await parseBody(event, bagSchema)
  const access = await accessOf(event)
  access.mustPlace('put', folder)
  return (await useTrough()).bagImport.bringIn(idOf(event), folder, access.by)
})
