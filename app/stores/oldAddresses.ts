import { z } from 'zod'
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { oldAddressListSchema, type OldAddress, type OldAddressList } from '~~/core/oldAddresses/oldAddressItem'
import type { Target } from '~~/core/page/schema'
import { ask, tell } from '~/composables/api'
import { counted } from '~/composables/format'
import { useNotices } from './notices'

const broughtSchema = z.object({ read: z.number(), added: z.number(), left: z.number() })
const pathsSchema = z.object({ paths: z.array(z.string()) })

/** Addresses shown at a time. */
const A_PAGE = 100

/** Addresses the site had before, and what is done about them. */
export const useOldAddresses = defineStore('oldAddresses', () => {
  const list = ref<OldAddressList>()
  const show = ref<'open' | 'led'>('open')
  const q = ref('')
  const page = ref(1)
  /** what is asked for anew begins at the first page */
  watch([show, q], () => (page.value = 1), { flush: 'sync' })

  /** counts the questions: an answer that was overtaken is not shown */
  let asked = 0
  async function load() {
    const own = ++asked
    const from = (page.value - 1) * A_PAGE
    const query = new URLSearchParams({ show: show.value, q: q.value, from: String(from), limit: String(A_PAGE) })
    const answer = await ask(oldAddressListSchema, `/old-addresses?${query}`)
    if (own !== asked) return
    list.value = answer
    // The last of a page was dealt with.
    if (answer.items.length || !answer.total) return
    page.value = Math.ceil(answer.total / A_PAGE)
    await load()
  }

  /** Takes in a sitemap, a page, a table or plain lines. */
  async function bring(text: string) {
    const { read, added, left } = await ask(broughtSchema, '/old-addresses', 'POST', { text })
    show.value = 'open'
    await load()
    useNotices().say(
      `${counted(read, 'address', 'addresses')} read, ${added ? added.toLocaleString() : 'none'} of them new.${left ? ` ${counted(left, 'line or link', 'lines or links')} left out: no address of this site.` : ''}`,
      { tone: 'works' },
    )
  }

  async function lead({ path, target: before }: OldAddress, target: Target | null, title = '') {
    const point = async (to: Target | null) => {
      await tell('/old-addresses', 'PUT', { path, target: to })
      await load()
    }
    await point(target)
    useNotices().say(target ? `${path} leads to “${title}” from now on.` : `${path} leads nowhere now.`, {
      tone: 'works',
      action: { label: 'Undo', run: () => point(before) },
    })
  }

  /** Takes all suggestions that are all but sure; can be taken back from the notice. */
  async function takeSuggestions() {
    const { paths } = await ask(pathsSchema, '/old-addresses/suggestions', 'POST')
    await load()
    const takeBack = async () => {
      await tell('/old-addresses/loosen', 'POST', { paths })
      await load()
    }
    useNotices().say(
      paths.length ? `${counted(paths.length, 'address', 'addresses')} lead on now.` : 'No suggestion is sure enough: choose for each.',
      paths.length ? { tone: 'works', action: { label: 'Undo', run: takeBack } } : {},
    )
  }

  async function forget({ path }: OldAddress) {
    await tell(`/old-addresses?${new URLSearchParams({ path })}`, 'DELETE')
    await load()
  }

  return { list, show, q, page, perPage: A_PAGE, load, bring, lead, takeSuggestions, forget }
})
