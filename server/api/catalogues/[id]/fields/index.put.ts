import { defineEventHandler } from 'h3'
import { fieldsChangeSchema } from '../../../../../core/catalogue/catalogue'
import { idOf, parseBody } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** Gives a catalogue other fields. */
export default defineEventHandler(async event =>
  (await useTrough()).catalogues.changeFields(idOf(event), await parseBody(event, fieldsChangeSchema)),
)
