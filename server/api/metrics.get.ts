import { defineEventHandler, setResponseHeader } from 'h3'
import { useTrough } from '../utils/trough'

/** Measurements in the OpenMetrics text format, for the owner and for programs that have the data folder's secret. */
export default defineEventHandler(async event => {
  const { metrics } = await useTrough()
  setResponseHeader(event, 'Content-Type', metrics.contentType as 'application/openmetrics-text; version=1.0.0; charset=utf-8')
  return metrics.read()
})
