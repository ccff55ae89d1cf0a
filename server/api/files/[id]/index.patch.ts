import { defineEventHandler } from 'h3'
import { fileChangeSchema } from '../../../../core/files/fileItem'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).library.change(idOf(event), await parseBody(event, fileChangeSchema)))
