import { defineNitroPlugin } from 'nitropack/runtime'
import { answerVisitor, isForVisitors } from '../visitors/visitors'

/**
 * Puts visitors in front of Nitro's own chain of assets, route rules and middleware, which costs more
 * time than a small file's whole delivery (`npm run bench`). Errors still go through Nitro's handler.
 */
export default defineNitroPlugin(({ h3App }) => {
  const desk = h3App.handler
  h3App.handler = Object.assign((event: Parameters<typeof desk>[0]) =>
    isForVisitors(event.node.req.url!) ? answerVisitor(event) : desk(event), { __is_handler__: true as const })
})
