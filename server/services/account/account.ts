import { randomInt, timingSafeEqual } from 'node:crypto'
import { eq } from 'drizzle-orm'
import { z } from 'zod'
import { newId } from '../../../core/id'
import { Problem } from '../../../core/problem'
import type { Database } from '../../db/connection'
import { accounts } from '../../db/schema'
import { Attempts } from './attempts'
import { hashPassword, verifyPassword } from './password'

export const signInSchema = z.object({
  email: z.string().trim().toLowerCase().max(254),
  password: z.string().max(1000),
})

export const setUpSchema = z.object({
  code: z.string().trim().max(40),
  email: z.email('Give an e-mail address, such as me@example.com.').max(254).toLowerCase(),
  // NIST SP 800-63B, section 5.1.1: length matters, composition rules do not.
  password: z.string().min(8, 'Use at least 8 characters.').max(1000),
  siteName: z.string().trim().min(1, 'Give the site a name.').max(120),
})

export interface Account { id: string, email: string }

const LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789'
const newCode = () => Array.from({ length: 3 }, () => Array.from({ length: 4 }, () => LETTERS[randomInt(LETTERS.length)]).join('')).join('-')

function sameText(a: string, b: string): boolean {
  const [x, y] = [Buffer.from(a), Buffer.from(b)]
  return x.length === y.length && timingSafeEqual(x, y)
}

/** The owner's account: made once with the code from the console, then signed in to. */
export function createAccountService(db: Database) {
  const attempts = new Attempts()
  const code = newCode()
  // Verified against when the e-mail is unknown, so that the answer takes as long.
  const decoy = hashPassword(newId())

  const isSetUp = async () => (await db.select({ id: accounts.id }).from(accounts).limit(1)).length > 0

  async function create(email: string, password: string): Promise<Account> {
    const passwordHash = await hashPassword(password)
    return db.transaction(async (tx) => {
      if ((await tx.select().from(accounts).limit(1)).length) {
        throw new Problem(409, 'This site already has an owner.', 'Sign in instead.')
      }
      const account = { id: newId(), email }
      await tx.insert(accounts).values({ ...account, passwordHash })
      return account
    })
  }

  return {
    isSetUp,
    create,
    /** The one-time set-up code; worthless once there is an account. */
    code,

    /** @param from where the attempt comes from, for the limit on attempts */
    async setUp(input: z.infer<typeof setUpSchema>, from: string): Promise<Account> {
      attempts.check(from)
      if (!sameText(input.code.toUpperCase(), code)) {
        attempts.failed(from)
        throw new Problem(403, 'That is not the set-up code.', 'Copy it from the console where Trough was started.')
      }
      return create(input.email, input.password)
    },

    async signIn({ email, password }: z.infer<typeof signInSchema>, from: string): Promise<Account> {
      attempts.check(from)
      // Counted before anything is waited for, so that many at once do not slip past the limit.
      attempts.failed(from)
      const [account] = await db.select().from(accounts).where(eq(accounts.email, email))
      if (!await verifyPassword(password, account?.passwordHash ?? await decoy) || !account) {
        throw new Problem(401, 'E-mail and password do not match.', 'Check both and try again.')
      }
      attempts.succeeded(from)
      return { id: account.id, email: account.email }
    },

    async find(id: string): Promise<Account | undefined> {
      const [account] = await db.select({ id: accounts.id, email: accounts.email }).from(accounts).where(eq(accounts.id, id))
      return account
    },
  }
}
