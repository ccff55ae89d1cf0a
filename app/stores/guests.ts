import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { z } from 'zod'
import { groupItemSchema, guestItemSchema, type GroupItem, type GuestItem, type NewGuests } from '~~/core/guests/guest'
import { ask, tell } from '~/composables/api'
import { useGates } from './gates'

const groupsSchema = z.object({ items: z.array(groupItemSchema) })
const guestsSchema = z.object({ items: z.array(guestItemSchema) })
const addedSchema = z.object({ ids: z.array(z.string()) })

/** Who gets through gates by name: the groups there are, and what is done with guests. */
export const useGuests = defineStore('guests', () => {
  const groups = ref<GroupItem[]>([])
  const byId = computed(() => new Map(groups.value.map(group => [group.id, group])))

  async function load() {
    groups.value = (await ask(groupsSchema, '/groups')).items
  }
  /** How many gates let through depends on who there is. */
  const changed = () => Promise.all([load(), useGates().load()])

  async function add(given: NewGuests): Promise<string[]> {
    const { ids } = await ask(addedSchema, '/guests', 'POST', given)
    await changed()
    return ids
  }
  const some = async (ids: readonly string[]): Promise<GuestItem[]> =>
    ids.length ? (await ask(guestsSchema, '/guests/some', 'POST', { guests: ids })).items : []
  async function remove({ id }: GuestItem) {
    await tell(`/guests/${id}`, 'DELETE')
    await changed()
  }
  async function addGroup(name: string): Promise<GroupItem> {
    const group = await ask(groupItemSchema, '/groups', 'POST', { name })
    await load()
    return group
  }
  async function renameGroup({ id }: GroupItem, name: string) {
    await tell(`/groups/${id}`, 'PATCH', { name })
    await load()
  }
  async function removeGroup({ id }: GroupItem) {
    await tell(`/groups/${id}`, 'DELETE')
    await changed()
  }

  return { groups, byId, load, changed, add, some, remove, addGroup, renameGroup, removeGroup }
})
