import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { OldAddress, OldAddressList } from '~~/core/oldAddresses/oldAddressItem'
import type { Target } from '~~/core/page/schema'
import { api } from '~/composables/api'
import { counted } from '~/composables/format'
import { useNotices } from './notices'

const PAGE = 100

/** Addresses the site had before, and what is done about them. */
export const useOldAddresses = defineStore('oldAddresses', () => {
  const list = ref<OldAddressList>()
  const show = ref<'open' | 'led'>('open')
  const q = ref('')

  const ask = (from: number, limit: number) =>
    api<OldAddressList>(`/old-addresses?${new URLSearchParams({ show: show.value, q: q.value, from: String(from), limit: String(limit) })}`)

  async function load() {
    list.value = await ask(0, Math.min(500, Math.max(PAGE, list.value?.items.length ?? 0)))
  }

  async function more() {
    const { items, ...counts } = await ask(list.value!.items.length, PAGE)
    list.value = { ...counts, items: [...list.value!.items, ...items] }
  }

  /** Takes in a sitemap, a page, a table or plain lines. */
  async function bring(text: string) {
    const { read, added, left } = await api<{ read: number; added: number; left: number }>('/old-addresses', 'POST', { text })
    show.value = 'open'
    await load()
    useNotices().say(
      `${counted(read, 'address', 'addresses')} read, ${added ? added.toLocaleString() : 'none'} of them new.${left ? ` ${counted(left, 'line or link', 'lines or links')} left out: no address of this site.` : ''}`,
      { tone: 'works' },
    )
  }

  async function lead({ path, target: before }: OldAddress, target: Target | null, title = '') {
    const point = async (to: Target | null) => {
      await api('/old-addresses', 'PUT', { path, target: to })
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
    const { paths } = await api<{ paths: string[] }>('/old-addresses/suggestions', 'POST')
    await load()
    const takeBack = async () => {
      await api('/old-addresses/loosen', 'POST', { paths })
      await load()
    }
    useNotices().say(
      paths.length ? `${counted(paths.length, 'address', 'addresses')} lead on now.` : 'No suggestion is sure enough: choose for each.',
      paths.length ? { tone: 'works', action: { label: 'Undo', run: takeBack } } : {},
    )
  }

  async function forget({ path }: OldAddress) {
    await api(`/old-addresses?${new URLSearchParams({ path })}`, 'DELETE')
    await load()
  }

  return { list, show, q, load, more, bring, lead, takeSuggestions, forget }
})
