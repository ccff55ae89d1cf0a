import type { Database } from '../../db/connection'
import type { Contacts } from '../contacts/contacts'
import type { Coming, Entered } from './coming'
import type { GivePass } from './givePass'

interface Needs {
  db: Database
  contacts: Pick<Contacts, 'admit'>
  givePass: GivePass
}

/** Lets in whoever has accepted the terms; that they did is kept. */
export const createByTerms =
  ({ db, contacts, givePass }: Needs) =>
  async ({ gate, comer, given, to }: Coming): Promise<Entered> => {
    const { pass } = await db.transaction(tx => contacts.admit(tx, { gate, confirmed: false, given }))
    return { to, cookie: givePass(gate, pass, '', comer) }
  }
