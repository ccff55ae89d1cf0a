import type { useRights } from '~/stores/rights'

type Rights = ReturnType<typeof useRights>

/** Boards that are not for everybody, by how their addresses begin: who may open them. */
const BOARDS: [path: string, may: (rights: Rights) => boolean][] = [
  ['/desk/pages/', rights => rights.readsPages],
  ['/desk/catalogues', rights => rights.readsPages],
  ['/desk/downloads', rights => rights.may('downloads') && rights.everywhere('see')],
  ['/desk/checks', rights => rights.checks],
  ['/desk/looks', rights => rights.may('design')],
  ['/desk/signposts', rights => rights.may('design')],
  ['/desk/gates', rights => rights.may('gates')],
  ['/desk/guests', rights => rights.may('gates')],
  ['/desk/contacts', rights => rights.may('contacts')],
  ['/desk/letterbox', rights => rights.may('contacts')],
  ['/desk/outbox', rights => rights.owner],
  ['/desk/people', rights => rights.owner],
  ['/desk/setup/people', () => true],
  ['/desk/setup/services', rights => rights.owner],
  ['/desk/setup/log', rights => rights.owner],
  ['/desk/setup', rights => rights.may('site')],
  ['/desk/old-addresses', rights => rights.may('site')],
]

/** Whether who is signed in may open what is at an address of the desk. */
export const mayOpen = (rights: Rights, path: string): boolean => BOARDS.find(([start]) => path.startsWith(start))?.[1](rights) ?? true
