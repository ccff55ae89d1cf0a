import { defineEventHandler } from 'h3'
import { hostsSchema } from '../../core/files/fetchHosts'
import { parseBody } from '../utils/request'
import { useTrough } from '../utils/trough'

export default defineEventHandler(async event => {
  const { hosts } = await parseBody(event, hostsSchema)
  return { hosts: await (await useTrough()).fetching.setHosts(hosts) }
})
