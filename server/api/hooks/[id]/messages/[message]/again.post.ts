import { defineEventHandler, getRouterParam, sendNoContent } from 'h3'
import { idOf } from '../../../../../utils/request'
import { useTrough } from '../../../../../utils/trough'

/** Tries what could not be told once more. */
export default defineEventHandler(async event => {
  await (await useTrough()).hooks.again(idOf(event), getRouterParam(event, 'message')!)
  return sendNoContent(event)
})
