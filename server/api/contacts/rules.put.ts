import { defineEventHandler } from 'h3'
import { contactRulesSchema } from '../../../core/contacts/contact'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).contacts.setRules(await parseBody(event, contactRulesSchema)))
