import { defineEventHandler } from 'h3'
import { pageSettingsSchema } from '../../../../core/page/pageItem'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).pages.change(idOf(event), await parseBody(event, pageSettingsSchema)))
