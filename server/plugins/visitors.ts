import { defineNitroPlugin } from 'nitropack/runtime'
import type { Metrics } from '../services/watch/metrics'
import { useTrough } from '../utils/trough'
import { answerVisitor, isForVisitors } from '../visitors/visitors'
import { watchRequest } from '../watch'

/**
 * Puts visitors in front of Nitro's own chain of assets, route rules and middleware, which costs more
 * time than a small file's whole delivery (`npm run bench`). Errors still go through Nitro's handler.
 */
export default defineNitroPlugin(({ h3App }) => {
  const desk = h3App.handler
  let metrics: Metrics | undefined
  void useTrough().then(trough => metrics = trough.metrics, () => undefined)
  h3App.handler = Object.assign((event: Parameters<typeof desk>[0]) => {
    watchRequest(event, () => metrics)
    return isForVisitors(event.node.req.url!) ? answerVisitor(event) : desk(event)
  }, { __is_handler__: true as const })
})
