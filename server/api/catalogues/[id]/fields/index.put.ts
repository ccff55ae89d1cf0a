import { defineEventHandler } from 'h3'
import { fieldsChangeSchema } from '../../../../../core/catalogue/catalogue'
import { accessOf } from '../../../../utils/access'
import { idOf, parseBody } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** Gives a catalogue other fields. */
export default defineEventHandler(async event => {
  const { catalogues } = await useTrough()
  const change = await parseBody(event, fieldsChangeSchema)
  // What a folder feeds is for visitors: who does not see a folder cannot show what is in it.
  const before = new Set((await catalogues.get(idOf(event))).fields.map(({ folder }) => folder))
  const folders = change.fields.flatMap(({ folder }) => (folder !== null && !before.has(folder) ? [folder] : []))
  await (await accessOf(event)).mustSee({ files: [], folders })
  return catalogues.changeFields(idOf(event), change)
})
