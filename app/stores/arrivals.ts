import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { arrivalSchema, arrivalsSchema, type Arrival } from '~~/core/letterbox/arrival'
import { ask, tell } from '~/composables/api'
import { useRights } from './rights'

/** More would push what else waits in the trough out of sight. */
const MOST_SHOWN = 5

/** What came by letterboxes and waits for somebody at the desk. */
export const useArrivals = defineStore('arrivals', () => {
  const waiting = shallowRef<Arrival[]>([])
  const total = shallowRef(0)
  /** counts the loads, so that a list that is open shows the same */
  const changes = shallowRef(0)

  async function load() {
    if (!useRights().may('contacts')) return
    const found = await ask(arrivalsSchema, `/arrivals?waiting=yes&limit=${MOST_SHOWN}`)
    waiting.value = found.items
    total.value = found.total
    changes.value++
  }

  async function putAway(id: string, away: boolean): Promise<Arrival> {
    const arrival = await ask(arrivalSchema, `/arrivals/${id}`, 'PUT', { away })
    await load()
    return arrival
  }

  async function remove(id: string) {
    await tell(`/arrivals/${id}`, 'DELETE')
    await load()
  }

  return { waiting, more: computed(() => Math.max(0, total.value - waiting.value.length)), changes, load, putAway, remove }
})
