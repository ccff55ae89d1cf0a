import { defineNitroPlugin } from 'nitropack/runtime'
import type { Trough } from '../trough'
import { useTrough } from '../utils/trough'
import { answerAtOnce, answerVisitor, isForVisitors } from '../visitors/visitors'
import { watchRequest } from '../watch'

/**
 * Puts visitors in front of Nitro's own chain of assets, route rules and middleware, which costs more
 * time than a small file's whole delivery (`npm run bench`). Errors still go through Nitro's handler.
 */
export default defineNitroPlugin(({ h3App }) => {
  const desk = h3App.handler
  let trough: Trough | undefined
  void useTrough().then(opened => trough = opened, () => undefined)
  h3App.handler = Object.assign((event: Parameters<typeof desk>[0]) => {
    watchRequest(event, () => trough?.metrics)
    if (!isForVisitors(event.node.req.url!)) return desk(event)
    if (!trough || !answerAtOnce(trough, event)) return answerVisitor(event)
  }, { __is_handler__: true as const })
})
