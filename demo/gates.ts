import { gateRuleSchema } from '../core/gate/gate'
import type { Trough } from '../server/trough'
import type { FileIds } from './fileIds'

/** The password of the demo's gate for trade buyers. */
export const TRADE_PASSWORD = 'clay-by-the-pallet'

const CONSENT = 'Marlpit may write to me when there is a new guide. I can end that with one press.'

/** Somebody who left an address at the demo's gate, invented. */
const LEFT = [
  { email: 'wheel@hollow-lane-school.example', name: 'Hollow Lane School', thrown: 'For years' },
  { email: 'studio@three-bridges.example', name: 'Three Bridges Studio', thrown: 'A few times' },
  { email: 'mud@saltmarsh-pots.example', name: '', thrown: 'Never' },
]

/**
 * Files that are not for everyone: a price list behind a password, a guide for an e-mail address, a table with terms, what
 * one client agreed to, and a form that they were sent.
 */
export async function makeGates(
  { gates, guests, library, contacts, personalLinks, dataFolder }: Trough,
  files: FileIds,
  folders: Map<string, string>,
): Promise<void> {
  const putOn = (name: string, gate: string) => library.change(files.get(name)!, { gate })
  const trade = await gates.create({
    name: 'Trade buyers',
    rule: gateRuleSchema.parse({
      kind: 'password',
      words: { before: 'The trade price list is for schools, studios and shops with an account. The password is on your last invoice.' },
      ask: 'trade@marlpit.example',
    }),
    password: TRADE_PASSWORD,
  })
  await putOn('trade-price-list-2026-11.pdf', trade.id)

  const guide = await gates.create({
    name: 'Guides by letter',
    rule: gateRuleSchema.parse({
      kind: 'email',
      fields: [
        { id: 'studio01', kind: 'text', label: 'Name of your studio or school' },
        {
          id: 'thrown01',
          kind: 'choice',
          label: 'Have you thrown before?',
          required: true,
          choices: ['Never', 'A few times', 'For years'],
        },
      ],
      consent: CONSENT,
      confirm: true,
    }),
  })
  await putOn('first-bowl-2026-03.pdf', guide.id)
  await dataFolder.connection.db.transaction(async tx => {
    for (const { email, name, thrown } of LEFT)
      await contacts.admit(tx, {
        gate: guide,
        email,
        confirmed: true,
        given: {
          answers: [
            ...(name ? [{ label: 'Name of your studio or school', value: name }] : []),
            { label: 'Have you thrown before?', value: thrown },
          ],
          consent: CONSENT,
        },
      })
  })

  const materials = await gates.create({
    name: 'Raw materials, with care',
    rule: gateRuleSchema.parse({
      kind: 'terms',
      terms: {
        text: [
          'These notes are for potters who mix their own glazes.',
          'Some of the materials are poisonous as powder: I wear a mask, wipe wet and keep them from children.',
          'I do not sell the table on.',
        ].join('\n'),
        file: null,
      },
    }),
  })
  await putOn('raw-materials.csv', materials.id)

  const { id: school } = await guests.addGroup('Hollow Lane School')
  await guests.add({
    guests: [
      { email: 'wheel@hollow-lane-school.example', name: 'Pottery teacher' },
      { email: 'office@hollow-lane-school.example', name: 'School office' },
    ],
    groups: [school],
  })
  const client = await gates.create({
    name: 'Hollow Lane School',
    rule: gateRuleSchema.parse({ kind: 'people', groups: [school], hidden: true, ask: 'trade@marlpit.example' }),
  })
  await library.folders.change(folders.get('Contracts')!, { gate: client.id })

  await personalLinks.create(
    files.get('trade-account-form-2026-03.pdf')!,
    {
      note: 'Hollow Lane School, second kiln',
      email: 'wheel@hollow-lane-school.example',
      until: null,
      most: 5,
      send: true,
    },
    '',
  )
}
