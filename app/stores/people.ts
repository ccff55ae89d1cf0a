import { defineStore } from 'pinia'
import { ref } from 'vue'
import { z } from 'zod'
import { personItemSchema, type Invitation, type PersonChange, type PersonItem } from '~~/core/people/person'
import { ask, tell } from '~/composables/api'

const listSchema = z.object({ items: z.array(personItemSchema) })

/** Who works at the desk, and who was asked to. */
export const usePeople = defineStore('people', () => {
  const items = ref<PersonItem[]>([])
  const loaded = ref(false)

  async function load() {
    items.value = (await ask(listSchema, '/people')).items
    loaded.value = true
  }
  async function invite(invitation: Invitation): Promise<PersonItem> {
    const person = await ask(personItemSchema, '/people/invitations', 'POST', invitation)
    await load()
    return person
  }
  async function inviteAgain({ id }: PersonItem) {
    await tell(`/people/invitations/${id}/again`, 'POST')
    await load()
  }
  async function change({ id }: PersonItem, changed: PersonChange) {
    await tell(`/people/${id}`, 'PATCH', changed)
    await load()
  }
  async function letGo({ id, state }: PersonItem) {
    await tell(state === 'invited' ? `/people/invitations/${id}` : `/people/${id}`, 'DELETE')
    await load()
  }
  async function endSessions({ id }: PersonItem) {
    await tell(`/people/${id}/end-sessions`, 'POST')
    await load()
  }

  return { items, loaded, load, invite, inviteAgain, change, letGo, endSessions }
})
