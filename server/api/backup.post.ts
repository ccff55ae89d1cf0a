import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { parseBody } from '../utils/request'
import { useTrough } from '../utils/trough'

const backupSchema = z.object({ folder: z.string().min(1, 'Name a folder.').max(1000) })

/** Makes a backup in a folder of this machine, or brings one up to date; answers when it is whole. */
export default defineEventHandler(async event => (await useTrough()).backups.make((await parseBody(event, backupSchema)).folder))
