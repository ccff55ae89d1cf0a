import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { Problem } from '../../core/problem'
import { parseBody } from '../utils/request'
import { hasControl } from '../utils/session'
import { useTrough } from '../utils/trough'

const backupSchema = z.object({ folder: z.string().min(1, 'Name a folder.').max(1000) })

/**
 * Makes a backup in a folder of this machine, or brings one up to date; answers when it is whole. For the command
 * alone: who is signed in from afar has no business in the folders of the machine.
 */
export default defineEventHandler(async event => {
  if (!(await hasControl(event)))
    throw new Problem(403, 'Backups are made on the machine Trough runs on.', 'Run “trough backup FOLDER” there.')
  return (await useTrough()).backups.make((await parseBody(event, backupSchema)).folder)
})
