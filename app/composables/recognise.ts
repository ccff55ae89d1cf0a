import { recognise } from '~~/core/page/recognise'
import { ledSchema, type Led } from '~~/core/page/led'
import type { Target } from '~~/core/page/schema'
import { ApiProblem, ask } from './api'

/** What a text leads to where it is an address, of this site or elsewhere; undefined where it is none, or nothing is there. */
export async function ledBy(text: string): Promise<Led | undefined> {
  // Most of what is typed is no address: the server is asked only where it may be one.
  if (!recognise(text, [window.location.host])) return undefined
  try {
    return await ask(ledSchema, `/recognise?text=${encodeURIComponent(text)}`)
  } catch (error) {
    if (error instanceof ApiProblem && (error.status === 404 || error.status === 422)) return undefined
    throw error
  }
}

export const TARGET_WORDS: Record<Target['kind'], string> = {
  file: 'File',
  page: 'Page of this site',
  signpost: 'Signpost',
  address: 'Address elsewhere',
  email: 'E-mail',
  phone: 'Phone call',
  entry: 'Entry of a catalogue',
  field: 'What each entry has',
}
