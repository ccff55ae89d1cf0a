import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Files of the folders that fields take theirs from which fit no entry beyond doubt. */
export default defineEventHandler(async event => ({ items: await (await useTrough()).folderFields.strays(idOf(event)) }))
