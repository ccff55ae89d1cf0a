import { defineEventHandler } from 'h3'
import { newCatalogueSchema } from '../../../core/catalogue/catalogue'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).catalogues.create(await parseBody(event, newCatalogueSchema)))
