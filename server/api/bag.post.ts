import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { placeSchema } from '../../core/folders/folderItem'
import { accessOf } from '../utils/access'
import { parseBody } from '../utils/request'
import { useTrough } from '../utils/trough'

const bagSchema = z.object({ folder: placeSchema.default(null) })

/** Lays out the library, or a folder of it, as a bag; its zip is downloaded like that of a selection. */
export default defineEventHandler(async event => {
  const { bagExport, zipping } = await useTrough()
  const { folder } = await parseBody(event, bagSchema)
  ;(await accessOf(event)).mustPlace('see', folder)
  return zipping.offer(await bagExport.layOut(folder))
})
