import { defineEventHandler } from 'h3'
import { diskFull } from '../../core/diskFull'
import { LEAST_FREE } from '../store/reserve'
import { useTrough } from '../utils/trough'

/**
 * What frees room, takes things elsewhere, only asks, or adds nothing to speak of; uploads keep more room than this, and say how they go
 * on.
 */
const ALWAYS = [
  '/api/session',
  '/api/uploads',
  '/api/selection/remove',
  '/api/selection/for-good',
  '/api/selection/frees',
  '/api/selection/zip',
  '/api/account',
  '/api/backup',
  '/api/bag',
  '/api/targets/places',
  '/api/cleaning',
  '/api/verify',
]

/** Refuses changes while the disk is all but full: nothing is begun that could not be written down whole. */
export default defineEventHandler(async event => {
  if (!['POST', 'PUT', 'PATCH'].includes(event.method)) return
  const path = event.path.split('?')[0]!
  if (!path.startsWith('/api/') || ALWAYS.some(free => path === free || path.startsWith(`${free}/`))) return
  const trough = await useTrough()
  if ((await trough.free()) < LEAST_FREE) throw diskFull(trough.folder)
})
