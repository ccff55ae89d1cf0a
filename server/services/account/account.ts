import { randomInt, timingSafeEqual } from 'node:crypto'
import { and, asc, eq, isNull } from 'drizzle-orm'
import type { Account, SetUp, SignIn } from '../../../core/account/accountForms'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import type { Database } from '../../db/connection'
import { accounts, sessions } from '../../db/schema'
import { refuseCommon } from './commonPasswords'
import type { Hasher } from './hasher'
import { createLimits, type Attempt } from './signInLimits'
import { newRecoveryCodes, newSecret, stepOf, withoutRecoveryCode } from './secondFactor'

const LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789'
const newCode = () =>
  Array.from({ length: 3 }, () => Array.from({ length: 4 }, () => LETTERS[randomInt(LETTERS.length)]).join('')).join('-')

function sameText(a: string, b: string): boolean {
  const [x, y] = [Buffer.from(a), Buffer.from(b)]
  return x.length === y.length && timingSafeEqual(x, y)
}

type Row = typeof accounts.$inferSelect
const toAccount = ({ id, email, name, rights, codeSecret }: Row): Account => ({
  id,
  email,
  name,
  rights,
  secondFactor: codeSecret !== null,
})

const wrongCode = () =>
  new Problem(401, 'That code does not fit.', 'Wait for the next one in your app, or use one of your recovery codes.', {
    secondFactor: true,
  })
const wrongPassword = () => new Problem(403, 'That is not your password.', 'Type the one you sign in with.', { field: 'old' })

/** The first owner's account, made once with the code from the console; and how everybody signs in. */
export function createAccountService(db: Database, hasher: Hasher) {
  const limits = createLimits()
  const code = newCode()
  let decoy: Promise<string> | undefined

  const isSetUp = async () => (await db.select({ id: accounts.id }).from(accounts).limit(1)).length > 0

  /** Who was an owner before any other. */
  async function firstOwner(): Promise<Row | undefined> {
    const [row] = await db.select().from(accounts).where(isNull(accounts.rights)).orderBy(asc(accounts.created)).limit(1)
    return row
  }

  async function rowOf(id: string): Promise<Row> {
    const [row] = await db.select().from(accounts).where(eq(accounts.id, id))
    if (!row) throw notFound('account')
    return row
  }

  async function create(email: string, password: string): Promise<Account> {
    refuseCommon(password, email)
    const passwordHash = await hasher.hash(password)
    return db.transaction(async tx => {
      if ((await tx.select().from(accounts).limit(1)).length) {
        throw new Problem(409, 'This site already has an owner.', 'Sign in instead.')
      }
      const account = { id: newId(), email }
      await tx.insert(accounts).values({ ...account, passwordHash })
      return { ...account, name: '', rights: null, secondFactor: false }
    })
  }

  /** @throws Problem 401 where the code is asked for, or does not fit */
  async function passSecondFactor(row: Row, given: string | undefined): Promise<void> {
    if (row.codeSecret === null) return
    if (!given)
      throw new Problem(401, 'One more step.', 'Type the code that your app shows now, or one of your recovery codes.', {
        secondFactor: true,
      })
    await db.transaction(async tx => {
      // Two who send the same code at once: only one of them finds it unused.
      const [now] = await tx.select().from(accounts).where(eq(accounts.id, row.id)).for('update')
      const step = stepOf(now!.codeSecret!, given, now!.codeStep)
      const left = step === undefined ? withoutRecoveryCode(now!.recoveryCodes, given) : undefined
      if (step === undefined && !left) throw wrongCode()
      await tx
        .update(accounts)
        .set(step === undefined ? { recoveryCodes: left } : { codeStep: step })
        .where(eq(accounts.id, row.id))
    })
  }

  async function mustKnow(row: Row, password: string): Promise<void> {
    if (!(await hasher.verify(password, row.passwordHash, { known: true }))) throw wrongPassword()
  }

  return {
    isSetUp,
    create,
    /** The one-time set-up code; worthless once there is an account. */
    code,

    /**
     * Counts an attempt to get in, before its words are read.
     *
     * @throws Problem 429 while one has to wait
     */
    begin: limits.begin,

    async setUp(input: SetUp): Promise<Account> {
      if (!sameText(input.code.toUpperCase(), code))
        throw new Problem(403, 'That is not the set-up code.', 'Copy it from the console where Trough was started.')
      return create(input.email, input.password)
    },

    /** @throws Problem 401, or 429 where too many tried this account, or are signing in just now */
    async signIn({ email, password, code: given }: SignIn, attempt: Attempt): Promise<Account> {
      const succeeded = await limits.on(email, attempt)
      const known = attempt.device !== undefined
      const [row] = await db.select().from(accounts).where(eq(accounts.email, email))
      // Verified where the e-mail is unknown, too, so that the answer takes as long.
      decoy ??= hasher.hash(newId())
      if (!(await hasher.verify(password, row?.passwordHash ?? (await decoy), { known })) || !row) {
        throw new Problem(401, 'E-mail and password do not match.', 'Check both and try again.')
      }
      await passSecondFactor(row, given)
      await succeeded()
      return toAccount(row)
    },

    /** @throws Problem 403 where the old password is not right, 422 where the new one is common */
    async changePassword(id: string, old: string, password: string): Promise<void> {
      const row = await rowOf(id)
      await mustKnow(row, old)
      refuseCommon(password, row.email)
      const passwordHash = await hasher.hash(password)
      const changed = await db
        .update(accounts)
        .set({ passwordHash })
        .where(and(eq(accounts.id, id), eq(accounts.passwordHash, row.passwordHash)))
        .returning({ id: accounts.id })
      // Somebody changed it meanwhile: the old one is not right any more.
      if (!changed.length) throw wrongPassword()
    },

    /** The owner's e-mail, for those who have found a hole in the site. */
    contact: async (): Promise<string | undefined> => (await firstOwner())?.email,

    /**
     * Gives the owner another password, without the old one: for who has the machine. Whoever is signed in is signed out.
     *
     * @returns the owner's e-mail
     */
    async resetPassword(password: string, endSecondFactor: boolean): Promise<string> {
      const row = await firstOwner()
      if (!row) throw new Problem(409, 'There is no owner yet.', 'Start Trough and set it up with the code it prints.')
      refuseCommon(password, row.email)
      const passwordHash = await hasher.hash(password)
      await db.transaction(async tx => {
        await tx
          .update(accounts)
          .set({ passwordHash, ...(endSecondFactor && { codeSecret: null, codeStep: null, recoveryCodes: [] }) })
          .where(eq(accounts.id, row.id))
        await tx.delete(sessions).where(eq(sessions.accountId, row.id))
      })
      return row.email
    },

    /** A secret for an app that shows codes; nothing is changed yet. */
    proposeSecondFactor: async (id: string, site: string) => newSecret(site, (await rowOf(id)).email),

    /**
     * From now on a code is asked for, too.
     *
     * @returns recovery codes, told this once
     * @throws Problem 401 where the code does not fit the secret, 403 where the password is not right
     */
    async beginSecondFactor(
      id: string,
      { secret, code: given, password }: { secret: string; code: string; password: string },
    ): Promise<string[]> {
      await mustKnow(await rowOf(id), password)
      const step = stepOf(secret, given, null)
      if (step === undefined)
        throw new Problem(
          422,
          'That code does not fit.',
          'See that the clock of your phone is right, and type the code that the app shows now.',
          { field: 'code' },
        )
      const { codes, hashes } = newRecoveryCodes()
      await db.update(accounts).set({ codeSecret: secret, codeStep: step, recoveryCodes: hashes }).where(eq(accounts.id, id))
      return codes
    },

    /** @throws Problem 403 where the password is not right */
    async endSecondFactor(id: string, password: string): Promise<void> {
      await mustKnow(await rowOf(id), password)
      await db.update(accounts).set({ codeSecret: null, codeStep: null, recoveryCodes: [] }).where(eq(accounts.id, id))
    },
  }
}
export type AccountService = ReturnType<typeof createAccountService>
