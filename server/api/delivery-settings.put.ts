import { defineEventHandler } from 'h3'
import { deliverySettingsSchema } from '../services/delivery/checks'
import { parseBody } from '../utils/request'
import { useTrough } from '../utils/trough'

export default defineEventHandler(async event => (await useTrough()).checks.set(await parseBody(event, deliverySettingsSchema)))
