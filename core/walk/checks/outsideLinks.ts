import { at, type Check } from '../check'
import type { Found } from '../finding'

/** Addresses elsewhere that were asked for and did not answer as a visitor hopes. */
export const outsideAnswers: Check = {
  name: 'outside',
  cost: 'misled',
  title: 'Leads to an address elsewhere that does not answer',
  why: 'Visitors leave your site and find an error there.',
  look: ({ outside }, seen) =>
    seen.flatMap((one): Found[] => {
      const answer = one.target.kind === 'address' ? outside(one.target.href) : undefined
      if (!answer || (answer.status >= 200 && answer.status < 400)) return []
      const why = answer.private
        ? 'lies in a private network, which visitors cannot reach'
        : answer.status === 0
          ? 'gave no answer'
          : `answered ${answer.status}`
      return [
        at(one, {
          words: `${new URL((one.target as { href: string }).href).host} ${why}.`,
          detail: `${(one.target as { href: string }).href} ${answer.status}`,
        }),
      ]
    }),
}

/** Addresses elsewhere that have moved for good (RFC 9110, 15.4.2 and 15.4.9: 301 and 308). */
export const moved: Check = {
  name: 'moved',
  cost: 'tidy',
  title: 'Leads to an address that has moved',
  why: 'It still leads on, for now, and takes visitors a moment longer.',
  look: ({ outside }, seen) =>
    seen.flatMap((one): Found[] => {
      const { target, placement } = one
      const to = target.kind === 'address' ? outside(target.href)?.movedTo : undefined
      if (!to || to.length > 2000) return []
      return [
        at(one, {
          words: `It has moved to ${to} for good.`,
          detail: to,
          mend: { kind: 'target', placement, target: { kind: 'address', href: to } },
          act: 'Lead there straight',
        }),
      ]
    }),
}
