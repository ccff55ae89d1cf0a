import { defineEventHandler } from 'h3'
import { signOut } from '../utils/session'

export default defineEventHandler(async (event) => {
  await signOut(event)
  return { account: null }
})
