import { defineEventHandler, getRequestURL } from 'h3'
import { idOf } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** Sends an invitation once more. */
export default defineEventHandler(async event => (await useTrough()).people.inviteAgain(idOf(event), getRequestURL(event).origin))
