import { expect, it } from 'vitest'
import { readGuests } from './written'

it.each([
  ['a@x.example', [['a@x.example', '']]],
  [
    'A@X.example\n\n b@y.example ',
    [
      ['a@x.example', ''],
      ['b@y.example', ''],
    ],
  ],
  // RFC 5322, section 3.4.
  ['"Hollow Lane, School" <h@x.example>', [['h@x.example', 'Hollow Lane, School']]],
  [
    'Wheel Works <w@x.example>; m@y.example',
    [
      ['w@x.example', 'Wheel Works'],
      ['m@y.example', ''],
    ],
  ],
  [
    'a@x.example, b@y.example',
    [
      ['a@x.example', ''],
      ['b@y.example', ''],
    ],
  ],
  ['a@x.example\na@x.example', [['a@x.example', '']]],
] as const)('%j is read', (text, expected) => expect(readGuests(text).guests.map(({ email, name }) => [email, name])).toEqual(expected))

it.each(['nobody', 'a@', '<a@x.example', 'a b@x.example', 'x@y.example\r\nBcc: z@y.example'.replace('\n', ' ')])('%j names nobody', line =>
  expect(readGuests(line)).toEqual({ guests: [], unread: [line.trim()] }),
)
