import type { GateItem, GateKind } from '~~/core/gate/gate'

/** What a gate asks, in a few words. */
export const GATE_KIND_WORDS: Record<GateKind, string> = {
  password: 'asks for a password',
  email: 'asks for an e-mail address',
  people: 'lets named people through',
  terms: 'asks to accept terms',
}

/** What is wrong with a gate: why nobody gets through it; empty where somebody does. */
export function gateFault({ rule, passwords, admits }: Pick<GateItem, 'rule' | 'passwords' | 'admits'>, now = Date.now()): string {
  if (rule.kind === 'password' && !passwords.length) return 'It has no password: nobody gets through.'
  if (rule.kind === 'people' && !admits) return 'Nobody is named: nobody gets through.'
  if (rule.until !== null && Date.parse(rule.until) <= now) return `It closed on ${longDate(rule.until)}: nobody gets through.`
  return ''
}

/** How much stands behind a gate: "2 folders, 1 file". */
export const behindWords = ({ files, folders, pages }: Pick<GateItem, 'files' | 'folders' | 'pages'>): string =>
  [folders && counted(folders, 'folder'), files && counted(files, 'file'), pages && counted(pages, 'page')].filter(Boolean).join(', ') ||
  'nothing yet'
