import { defineEventHandler } from 'h3'
import { useTrough } from '../utils/trough'

/** Hosts of a private network that files may be fetched from. */
export default defineEventHandler(async () => ({ hosts: await (await useTrough()).fetching.hosts() }))
