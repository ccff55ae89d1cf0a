import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** A file with the places that use it and the other files that hold the same bytes. */
export default defineEventHandler(async (event) => {
  const { library } = await useTrough()
  const file = await library.get(idOf(event))
  const twins = await library.twins(file)
  return { ...file, usedIn: await library.uses(file.id), twins: twins.map(({ id, title, handle }) => ({ id, title, handle })) }
})
