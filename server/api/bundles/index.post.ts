import { defineEventHandler, setResponseStatus } from 'h3'
import { newBundleSchema } from '../../../core/bundle/bundleEntry'
import { accessOf } from '../../utils/access'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Makes a bundle of files and folders. */
export default defineEventHandler(async event => {
  const asked = await parseBody(event, newBundleSchema, { most: MANY })
  const access = await accessOf(event)
  access.mustPlace('put', asked.folder)
  await access.mustSee(asked)
  const bundle = await (await useTrough()).bundles.create(asked)
  setResponseStatus(event, 201)
  return bundle
})
