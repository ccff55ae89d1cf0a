import { expect, it } from 'vitest'
import { settingPlaces } from './settingPlaces'

it.each([
  ['change password', ['Setup: password and sign-in']],
  ['PASSWORD change', ['Setup: password and sign-in']],
  ['journal', ['Setup: who did what']],
  ['backup', ['Setup: storage, cleaning and verifying', 'Setup: the library as a bag']],
  ['broken links', ['Checks: what visitors meet on the live pages']],
  ['', []],
  ['password of nobody', []],
])('%j leads to %j', (question, words) => expect(settingPlaces(question).map(place => place.words)).toEqual(words))
