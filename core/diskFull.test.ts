import { expect, it } from 'vitest'
import { isDiskFull } from './diskFull'

const coded = (code: string, cause?: unknown) => Object.assign(new Error('x', { cause }), { code })

it.each([
  ['no space (POSIX ENOSPC)', coded('ENOSPC'), true],
  ['no quota (POSIX EDQUOT)', coded('EDQUOT'), true],
  ['the database’s word for it (PostgreSQL, SQLSTATE 53100)', new Error('Failed query', { cause: coded('53100') }), true],
  ['another failure', coded('EACCES', coded('EIO')), false],
  ['a failure without a code', new Error('ENOSPC'), false],
  ['something that is no error', 'ENOSPC', false],
])('%s', (_, error, full) => expect(isDiskFull(error)).toBe(full))
