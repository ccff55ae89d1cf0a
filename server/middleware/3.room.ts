import { defineEventHandler } from 'h3'
import { diskFull } from '../../core/diskFull'
import { useTrough } from '../utils/trough'

/** The database begins a new stretch of its log when one is full, and cannot go on without room for it: 16 MiB (PostgreSQL, WAL internals). */
const LEAST_FREE = 2 * 16 * 1024 * 1024

/** What frees room, takes things elsewhere, only asks, or adds nothing to speak of; uploads keep more room than this, and say how they go on. */
const ALWAYS = ['/api/session', '/api/uploads', '/api/selection/remove', '/api/selection/zip', '/api/bag', '/api/targets/places', '/api/cleaning/now', '/api/cleaning/preview', '/api/verify']

/** Refuses changes while the disk is all but full: nothing is begun that could not be written down whole. */
export default defineEventHandler(async (event) => {
  if (!['POST', 'PUT', 'PATCH'].includes(event.method)) return
  const path = event.path.split('?')[0]!
  if (!path.startsWith('/api/') || ALWAYS.some(free => path === free || path.startsWith(`${free}/`))) return
  if (await (await useTrough()).free() < LEAST_FREE) throw diskFull()
})
