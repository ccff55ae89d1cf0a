import { defineEventHandler } from 'h3'
import { newFolderSchema } from '../../../core/folders/folderItem'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).library.folders.create(await parseBody(event, newFolderSchema)))
