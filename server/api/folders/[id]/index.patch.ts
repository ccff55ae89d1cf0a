import { defineEventHandler } from 'h3'
import { folderChangeSchema } from '../../../../core/folders/folderItem'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).library.folders.change(idOf(event), await parseBody(event, folderChangeSchema)),
)
