import { defineEventHandler } from 'h3'
import { contentsKind } from '../../../../core/files/fileContents'
import { mustBeStored } from '../../../services/files/items'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** What is in a file: its text, its tables, its entries. */
export default defineEventHandler(async event => {
  const { library, looking, texts } = await useTrough()
  const file = mustBeStored(await library.get(idOf(event)))
  return contentsKind(file.mediaType) ? looking.contents(file) : ((await texts.shown(file.sha256)) ?? looking.contents(file))
})
