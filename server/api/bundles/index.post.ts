import { defineEventHandler, setResponseStatus } from 'h3'
import { newBundleSchema } from '../../../core/bundle/bundleEntry'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Makes a bundle of files and folders. */
export default defineEventHandler(async event => {
  const bundle = await (await useTrough()).bundles.create(await parseBody(event, newBundleSchema, { most: MANY }))
  setResponseStatus(event, 201)
  return bundle
})
