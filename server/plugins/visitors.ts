import type { H3Event } from 'h3'
import { defineNitroPlugin } from 'nitropack/runtime'
import { namesTwoHosts, originForm } from '../../core/http/requestTarget'
import { Problem } from '../../core/problem'
import type { Trough } from '../trough'
import { useTrough } from '../utils/trough'
import { DESK_HEADERS } from '../deskHeaders'
import { answerProblem } from '../error'
import { isForVisitors } from '../visitors/audience'
import { oneATurn } from '../visitors/oneATurn'
import { answerVisitor } from '../visitors/visitors'
import { watchRequest } from '../watch'

/** What is not there is asked for more than anything else: it does not go the long way of other errors. */
const sayWhatIsWrong =
  (event: H3Event) =>
  (error: unknown): Promise<void> => {
    if (!(error instanceof Problem) || error.status >= 500) throw error
    return answerProblem(error, event)
  }

/**
 * Puts visitors in front of Nitro's own chain of assets, route rules and middleware, which costs more
 * time than a small file's whole delivery (`npm run bench`). Errors still go through Nitro's handler.
 */
export default defineNitroPlugin(({ h3App }) => {
  const desk = h3App.handler
  let trough: Trough | undefined
  void useTrough().then(
    opened => (trough = opened),
    () => undefined,
  )
  h3App.handler = Object.assign(
    (event: Parameters<typeof desk>[0]) => {
      const { req, res } = event.node
      watchRequest(event, () => trough?.metrics)
      if (namesTwoHosts(req.rawHeaders)) throw new Problem(400, 'The request names two hosts.', 'Name one.')
      const target = originForm(req.url!)
      if (target === undefined) throw new Problem(400, 'That is no address on this site.', 'Begin the path with a slash.')
      req.url = target
      // No name, title or path has it in it, and no database takes it.
      if (target.includes('%00')) throw new Problem(400, 'There is a character in the address that none can have (NUL).', 'Leave it out.')
      if (isForVisitors(target)) return answerVisitor(event).catch(sayWhatIsWrong(event))
      for (const [name, value] of Object.entries(DESK_HEADERS)) res.setHeader(name, value)
      // Pages set in them are shown in frames that are nobody's, the preview among them.
      if (target.startsWith('/_fonts/')) {
        res.setHeader('Access-Control-Allow-Origin', '*')
        res.setHeader('Cross-Origin-Resource-Policy', 'cross-origin')
      }
      if (!target.startsWith('/api')) return desk(event)
      res.setHeader('Cache-Control', 'no-store')
      // However many ask at once: visitors come in between.
      return oneATurn().then(() => desk(event))
    },
    { __is_handler__: true as const },
  )
})
