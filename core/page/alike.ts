import { canonical } from '../canonical'
import type { ButtonStart } from './insert'
import type { ButtonAttrs, Target } from './schema'

/** What leads on to more to read, and what gives a file: a click does the same only within each. */
const givesFile = (target: Target | null) => !target || target.kind === 'file' || target.kind === 'signpost'

/** A second line that is made of what is known of any file, or none, says nothing of the one file it stands on. */
const holdsOfAny = (note: string) => !/[\p{L}\p{N}]/u.test(note.replace(/\{[^}]*\}/g, ''))

/**
 * What a new button takes over from one it is to be like: how it looks, as wide as it is, its second line where that holds of any file,
 * and what a click does where both give files or both lead on.
 *
 * @param usual what it begins with otherwise
 */
export function startLike(model: ButtonAttrs, target: Target | null, usual: ButtonStart): ButtonStart {
  return {
    look: model.look,
    note: holdsOfAny(model.note) ? model.note : usual.note,
    ...(model.own && { own: model.own }),
    ...(givesFile(model.target) === givesFile(target) && { action: model.action }),
  }
}

/** The button that looks as most of them do, the last of those; of two looks that are met as often the later one. */
export function mostMet(buttons: readonly ButtonAttrs[]): ButtonAttrs | undefined {
  const met = new Map<string, { count: number; last: ButtonAttrs }>()
  for (const button of buttons) {
    const key = canonical([button.look, button.own ?? null])!
    const count = (met.get(key)?.count ?? 0) + 1
    // What was met last stands last.
    met.delete(key)
    met.set(key, { count, last: button })
  }
  let most: { count: number; last: ButtonAttrs } | undefined
  for (const each of met.values()) if (!most || each.count >= most.count) most = each
  return most?.last
}
