import { asc, eq, isNull, lt, max } from 'drizzle-orm'
import type { Account } from '../../../core/account/accountForms'
import { newId } from '../../../core/id'
import type { Entry, EntryFor, Invitation, PersonChange, PersonItem } from '../../../core/people/person'
import { Problem, notFound } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { accounts, invitations, passwordLinks, sessions } from '../../db/schema'
import { refuseCommon } from '../account/commonPasswords'
import type { Hasher } from '../account/hasher'
import type { SiteService } from '../site/site'
import type { Outbox } from '../outbox/outbox'
import { hashOf, newToken } from '../token'
import { changedLetter, invitationLetter, lostPasswordLetter, type AccountChange } from './deskLetters'

const DAY = 24 * 60 * 60 * 1000
const INVITED_FOR = 7 * DAY
/** As long as it takes to go and look into one's messages (NIST SP 800-63B, section 4.2.1.2: a day at most; shorter is safer). */
const LOST_FOR = 30 * 60 * 1000
/** Links for a lost password of one account that hold at the same time. */
const MOST_LINKS = 3

const spent = () => new Problem(410, 'This link no longer holds.', 'It was used already, or its time is over. Ask for another one.')
const lastOwner = () => new Problem(409, 'This is the only owner.', 'Make somebody else an owner first.')

/** Who works at the desk: asked to come, given rights, let go; and how a lost password is had again. */
export function createPeople({
  db,
  hasher,
  site,
  outbox,
  now = Date.now,
}: {
  db: Database
  hasher: Hasher
  site: Pick<SiteService, 'get'>
  outbox: Pick<Outbox, 'add' | 'behind' | 'soon'>
  now?: () => number
}) {
  async function list(): Promise<PersonItem[]> {
    const there = await db
      .select({ account: accounts, used: max(sessions.used) })
      .from(accounts)
      .leftJoin(sessions, eq(sessions.accountId, accounts.id))
      .groupBy(accounts.id)
      .orderBy(asc(accounts.created))
    const asked = await db.select().from(invitations).orderBy(asc(invitations.created))
    return [
      ...there.map(({ account: { id, email, name, rights, codeSecret, created }, used }): PersonItem => ({
        id,
        email,
        name,
        state: rights === null ? 'owner' : 'helper',
        rights,
        secondFactor: codeSecret !== null,
        created: created.toISOString(),
        used: used?.toISOString() ?? null,
        until: null,
      })),
      ...asked.map(({ id, email, name, rights, created, until }): PersonItem => ({
        id,
        email,
        name,
        state: 'invited',
        rights,
        secondFactor: false,
        created: created.toISOString(),
        used: null,
        until: until.toISOString(),
      })),
    ]
  }

  async function get(id: string): Promise<PersonItem> {
    const person = (await list()).find(one => one.id === id)
    if (!person) throw notFound('person')
    return person
  }

  /** Owners with their rows held: two who let each other go at once do not both succeed. */
  async function mustNotBeLastOwner(tx: Queryable, id: string): Promise<void> {
    const owners = await tx
      .select({ id: accounts.id })
      .from(accounts)
      .where(isNull(accounts.rights))
      .orderBy(asc(accounts.id))
      .for('update')
    if (owners.length === 1 && owners[0]!.id === id) throw lastOwner()
  }

  async function letGo(id: string): Promise<string> {
    return db.transaction(async tx => {
      await mustNotBeLastOwner(tx, id)
      const [gone] = await tx.delete(accounts).where(eq(accounts.id, id)).returning({ email: accounts.email })
      if (!gone) throw notFound('person')
      return gone.email
    })
  }

  /** What a link of a message stands for; the row is held where it is about to be used. */
  async function standingFor(token: string, tx: Queryable) {
    const hash = hashOf(token)
    const [invitation] = await tx.select().from(invitations).where(eq(invitations.token, hash)).for('update')
    if (invitation && invitation.until.getTime() > now()) return { kind: 'invitation' as const, ...invitation }
    const [link] = await tx
      .select({ until: passwordLinks.until, account: accounts })
      .from(passwordLinks)
      .innerJoin(accounts, eq(accounts.id, passwordLinks.accountId))
      .where(eq(passwordLinks.token, hash))
      .for('update')
    if (link && link.until.getTime() > now()) return { kind: 'password' as const, ...link.account }
    throw spent()
  }

  return {
    list,

    /**
     * Asks somebody to help; who was asked already is asked anew.
     *
     * @param by e-mail of who asks
     * @throws Problem 409 where they are there already
     */
    async invite({ email, name, rights }: Invitation, by: string, origin: string): Promise<PersonItem> {
      const token = newToken()
      const { name: siteName, address } = await site.get()
      const message = invitationLetter({ to: email, by, token, site: siteName, origin: address || origin })
      const said = { name, rights, by, token: hashOf(token), until: new Date(now() + INVITED_FOR) }
      const id = await db.transaction(async tx => {
        const [there] = await tx.select({ id: accounts.id }).from(accounts).where(eq(accounts.email, email))
        if (there) throw new Problem(409, `${email} works here already.`, 'Change what they may do instead.', { field: 'email' })
        const [row] = await tx
          .insert(invitations)
          .values({ id: newId(), email, ...said })
          .onConflictDoUpdate({ target: invitations.email, set: said })
          .returning({ id: invitations.id })
        await outbox.add(message, tx)
        return row!.id
      })
      outbox.soon()
      return get(id)
    },

    /** Sends an invitation once more; the link that was sent before no longer holds. */
    async inviteAgain(id: string, origin: string): Promise<PersonItem> {
      const [token, { name: siteName, address }] = [newToken(), await site.get()]
      await db.transaction(async tx => {
        const [row] = await tx
          .update(invitations)
          .set({ token: hashOf(token), until: new Date(now() + INVITED_FOR) })
          .where(eq(invitations.id, id))
          .returning()
        if (!row) throw notFound('invitation')
        await outbox.add(invitationLetter({ to: row.email, by: row.by, token, site: siteName, origin: address || origin }), tx)
      })
      outbox.soon()
      return get(id)
    },

    async withdraw(id: string): Promise<void> {
      const rows = await db.delete(invitations).where(eq(invitations.id, id)).returning({ id: invitations.id })
      if (!rows.length) throw notFound('invitation')
    },

    /**
     * Changes what somebody may do, from their next request on; or of an invitation, what they will be allowed.
     *
     * @throws Problem 409 where nobody would be left who may do everything
     */
    async change(id: string, change: PersonChange): Promise<PersonItem> {
      await db.transaction(async tx => {
        if (change.rights) await mustNotBeLastOwner(tx, id)
        if (!Object.keys(change).length) return
        const changed = await tx.update(accounts).set(change).where(eq(accounts.id, id)).returning({ id: accounts.id })
        if (changed.length) return
        await tx.update(invitations).set(change).where(eq(invitations.id, id))
      })
      return get(id)
    },

    /**
     * Lets somebody go: they are signed out everywhere, and what they did stays.
     *
     * @returns their e-mail
     * @throws Problem 409 for the only owner
     */
    letGo,

    /**
     * Leaves by oneself.
     *
     * @throws Problem 403 where the password is not right, 409 for the only owner
     */
    async leave(id: string, password: string): Promise<void> {
      const [row] = await db.select().from(accounts).where(eq(accounts.id, id))
      if (!row || !(await hasher.verify(password, row.passwordHash, { known: true })))
        throw new Problem(403, 'That is not your password.', 'Type the one you sign in with.', { field: 'password' })
      await letGo(id)
    },

    /** @throws Problem 410 where the link no longer holds */
    async look(token: string): Promise<EntryFor> {
      const { kind, email, name } = await db.transaction(tx => standingFor(token, tx))
      return { kind, email, name, site: (await site.get()).name }
    },

    /**
     * Chooses a password by the link of a message: of a new account, or of one whose password was lost. The link holds no longer.
     *
     * @returns the account; `signsIn` where nothing more is asked
     * @throws Problem 410 where the link no longer holds, 422 where the password is common
     */
    async enter({ token, password, name }: Entry): Promise<{ account: Account; kind: EntryFor['kind']; signsIn: boolean }> {
      const { email } = await db.transaction(tx => standingFor(token, tx))
      refuseCommon(password, email)
      const passwordHash = await hasher.hash(password)
      return db.transaction(async tx => {
        // Held and asked again: of two who press at once, one comes too late.
        const known = await standingFor(token, tx)
        if (known.kind === 'password') {
          const { id, rights, codeSecret } = known
          await tx.update(accounts).set({ passwordHash }).where(eq(accounts.id, id))
          await tx.delete(passwordLinks).where(eq(passwordLinks.accountId, id))
          await tx.delete(sessions).where(eq(sessions.accountId, id))
          const secondFactor = codeSecret !== null
          return { account: { id, email, name: known.name, rights, secondFactor }, kind: known.kind, signsIn: !secondFactor }
        }
        await tx.delete(invitations).where(eq(invitations.id, known.id))
        const account = { id: newId(), email, name: name || known.name, rights: known.rights }
        await tx.insert(accounts).values({ ...account, passwordHash })
        return { account: { ...account, secondFactor: false }, kind: known.kind, signsIn: true }
      })
    },

    /**
     * Sends a link to choose another password by, behind the answer. Nobody learns from it whether there is such an account.
     *
     * @throws Problem 409 where the site has no public address: what a request says of its host is anybody's word
     */
    async lostPassword(email: string): Promise<void> {
      const { name, address } = await site.get()
      if (!address)
        throw new Problem(
          409,
          'No message can lead here yet: this site has no public address.',
          'On the machine itself, "npm run trough password" gives the owner another one.',
        )
      const token = newToken()
      outbox.behind(() =>
        db.transaction(async tx => {
          const [row] = await tx.select({ id: accounts.id }).from(accounts).where(eq(accounts.email, email)).for('update')
          if (!row) return
          const held = await tx.select({ token: passwordLinks.token }).from(passwordLinks).where(eq(passwordLinks.accountId, row.id))
          if (held.length >= MOST_LINKS) return
          await tx.insert(passwordLinks).values({ token: hashOf(token), accountId: row.id, until: new Date(now() + LOST_FOR) })
          await outbox.add(lostPasswordLetter({ to: email, token, site: name, origin: address }), tx)
        }),
      )
    },

    /**
     * Tells somebody of a change to their account, for the case that it was not them.
     *
     * @param place the address it was done from
     * @param origin scheme and host, where the site has no address of its own yet
     */
    async tellOfChange(email: string, change: AccountChange, { place, origin }: { place: string; origin: string }): Promise<void> {
      const { name, address } = await site.get()
      await outbox.add(changedLetter({ to: email, change, place, site: name, origin: address || origin }))
      outbox.soon()
    },

    /** Ends all sessions of somebody. */
    async endSessions(id: string): Promise<void> {
      await get(id)
      await db.delete(sessions).where(eq(sessions.accountId, id))
    },

    /** Forgets links and invitations whose time is over. */
    async tidy(): Promise<void> {
      await db.delete(passwordLinks).where(lt(passwordLinks.until, new Date(now())))
      await db.delete(invitations).where(lt(invitations.until, new Date(now() - 30 * DAY)))
    },
  }
}
export type People = ReturnType<typeof createPeople>
