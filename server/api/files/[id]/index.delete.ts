import { defineEventHandler } from 'h3'
import { deleteFileSchema } from '../../../../core/files/item'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).library.remove(idOf(event), await parseBody(event, deleteFileSchema)))
