import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** Whether the site's icon is a picture of the owner's. */
export default defineEventHandler(async () => ({ own: (await (await useTrough()).icon.get()).own }))
