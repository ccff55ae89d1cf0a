import { z } from 'zod'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { walkStateSchema, costSchema, type Cost, type Finding, type WalkState } from '~~/core/walk/finding'
import { ask, tell } from '~/composables/api'
import { counted } from '~/composables/format'
import { useNotices } from './notices'
import { useRights } from './rights'

const countsSchema = z.object({ counts: z.record(costSchema, z.number()).nullable() })
const mendedSchema = z.object({ mended: z.number(), undo: z.string() })

/** What the walk finds, and what the owner does about it. */
export const useChecks = defineStore('checks', () => {
  const state = ref<WalkState>()
  const counts = ref<Record<Cost, number> | null>(null)
  const walking = ref(false)

  const open = computed(() => (state.value?.findings ?? []).filter(finding => finding.left === null))
  const left = computed(() => (state.value?.findings ?? []).filter(finding => finding.left !== null))
  /** findings that cost visitors what they came for */
  const urgent = computed(() => (counts.value ? counts.value.blocked + counts.value.misled : 0))

  async function take(answer: Promise<WalkState>) {
    walking.value = true
    try {
      state.value = await answer
      counts.value = state.value.counts
    } finally {
      walking.value = false
    }
  }

  const load = () => take(ask(walkStateSchema, '/walk'))
  const walk = () => take(ask(walkStateSchema, '/walk', 'POST'))

  /** What is known without walking. */
  async function count() {
    if (useRights().checks) ({ counts: counts.value } = await ask(countsSchema, '/walk/counts'))
  }

  /** Mends findings by their one act each; can be taken back from the notice. */
  async function mend(findings: Finding[]) {
    const { mended, undo } = await ask(mendedSchema, '/walk/mend', 'POST', {
      keys: findings.map(finding => finding.key),
    })
    const [only] = findings
    const notices = useNotices()
    const takeBack = async () => {
      try {
        await tell('/walk/take-back', 'POST', { undo })
        await load()
      } catch (error) {
        notices.say(error instanceof Error ? error.message : String(error), { tone: 'attention' })
      }
    }
    notices.say(findings.length === 1 ? `Mended on “${only!.page.title}”.` : `${counted(mended, 'place')} mended.`, {
      tone: 'works',
      action: { label: 'Undo', run: takeBack },
    })
    await load()
  }

  async function leave({ key }: Finding, because: string) {
    await tell('/walk/leave', 'POST', { key, because })
    await load()
  }

  async function takeUp({ key }: Finding) {
    await tell('/walk/take-up', 'POST', { key })
    await load()
  }

  /** Whether addresses elsewhere are asked, too. */
  async function askOutside(on: boolean) {
    await tell('/walk/outside', 'PUT', { on })
    await walk()
  }

  return { state, counts, walking, open, left, urgent, load, walk, count, mend, leave, takeUp, askOutside }
})
