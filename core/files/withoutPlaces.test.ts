import { expect, it } from 'vitest'
import { withoutPlaces } from './withoutPlaces'

it.each([
  [
    "ENOENT: no such file or directory, open '/srv/trough/data/store/sha256/ab/cd/abcd'",
    'ENOENT: no such file or directory, open the file',
  ],
  ['Input file contains unsupported image format', 'Input file contains unsupported image format'],
  ['Cannot find module "/home/me/app/node_modules/x.mjs"', 'Cannot find module the file'],
  ['bad entry (at /tmp/a/b.zip: 12)', 'bad entry (at the file: 12)'],
  ['C:\\Users\\me\\file.pdf is damaged', 'the file is damaged'],
  ['a/b is no number, nor is 1/2', 'a/b is no number, nor is 1/2'],
])('%s', (message, told) => expect(withoutPlaces(message)).toBe(told))
