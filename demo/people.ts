import { readyRights } from '../core/rights/ready'
import type { Trough } from '../server/trough'
import { OWNER, YARD } from './owner'

/** Who helps at the desk: the yard, which puts in delivery notes, and a teacher who was asked to write of the classes. */
export async function makePeople({ people, outbox }: Trough, folders: Map<string, string>): Promise<void> {
  await people.invite({ email: YARD.email, name: 'Yard', rights: readyRights('puts', [folders.get('Deliveries')!]) }, OWNER.email, '')
  const { items } = await outbox.list({ from: 0, limit: 200 })
  const message = await outbox.get(items.find(({ to }) => to === YARD.email)!.id)
  await people.enter({ token: message.text.split('/desk/join#')[1]!.split('\n')[0]!, password: YARD.password })
  await outbox.remove(message.id)
  await people.invite(
    { email: 'evenings@marlpit.example', name: 'Evening classes', rights: readyRights('pages', [folders.get('Classes')!]) },
    OWNER.email,
    '',
  )
}
