import { randomBytes } from 'node:crypto'
import { GATE_FIELDS } from '../../../core/gate/gatePage'
import type { Database } from '../../db/connection'
import type { Contacts } from '../contacts/contacts'
import type { Passwords } from '../gates/passwords'
import type { Coming, Entered } from './coming'
import type { GivePass } from './givePass'

interface Needs {
  db: Database
  passwords: Pick<Passwords, 'check'>
  contacts: Pick<Contacts, 'admit'>
  givePass: GivePass
}

/** Lets in whoever knows a password of the gate; what they accepted on the way is kept. */
export const createByPassword =
  ({ db, passwords, contacts, givePass }: Needs) =>
  async ({ gate, form, comer, given, to, say }: Coming): Promise<Entered> => {
    const by = await passwords.check(gate, form.get(GATE_FIELDS.password) ?? '', comer.address)
    if (by === undefined) return say('wrong', [GATE_FIELDS.password])
    const pass = randomBytes(12).toString('base64url')
    if (gate.rule.terms) await db.transaction(tx => contacts.admit(tx, { gate, confirmed: false, given, pass }))
    return { to, cookie: givePass(gate, pass, by, comer) }
  }
