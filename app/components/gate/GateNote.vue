<script setup lang="ts">
import type { GateItem, GateRule, GateUses } from '~~/core/gate/gate'
import { momentOf, wallTimeAt } from '~~/core/timetable/wallTime'

/** The particulars of one gate, in the margin; each is kept as it is changed. */
const props = defineProps<{ gate: GateItem }>()
const gates = useGates()
const session = useSession()
const asking = useAsking()
const { problem, attempt } = useAttempt()

const rule = computed(() => props.gate.rule)
const set = (part: Partial<GateRule>) => attempt(() => gates.setRule(props.gate, part))
async function rename(event: Event) {
  const field = event.target as HTMLInputElement
  if (!(await attempt(() => gates.change(props.gate.id, { name: field.value })))) field.value = props.gate.name
}

const uses = shallowRef<GateUses>()
watch(
  () => [props.gate.id, props.gate.files, props.gate.folders, props.gate.pages],
  () => attempt(async () => (uses.value = await gates.uses(props.gate.id))),
  { immediate: true },
)
const inUse = computed(() => !!uses.value && uses.value.files.length + uses.value.folders.length + uses.value.pages.length > 0)

async function remove() {
  const open = inUse.value
  const yes = await asking.ask({
    question: `Take the gate “${props.gate.name}” away?`,
    detail: open
      ? `${behindWords(props.gate)} ${props.gate.files + props.gate.folders + props.gate.pages === 1 ? 'stands' : 'stand'} behind it and will be open to everyone, unless something further up says otherwise.`
      : 'Nothing stands behind it.',
    yes: open ? 'Take it away, and open them' : 'Take it away',
    no: 'Leave it',
  })
  if (yes) await attempt(() => gates.remove(props.gate.id, open))
}
async function endPasses() {
  const yes = await asking.ask({
    question: 'Ask everyone again?',
    detail: 'Whoever has got through so far is asked anew the next time.',
    yes: 'Ask everyone again',
    no: 'Leave it',
  })
  if (yes) await attempt(() => gates.endPasses(props.gate.id))
}

/** What clocks show at a moment where the site is, for fields; and back. */
const { timeZone } = session.site
const wallOf = (moment: string | null) => (moment === null ? '' : wallTimeAt(new Date(moment), timeZone).slice(0, 10))
const dayAt = (day: string, time: string): string | null => (day ? momentOf(`${day}T${time}`, timeZone).toISOString() : null)
const days = reactive({ from: '', until: '' })
watch(
  () => props.gate,
  ({ rule }) =>
    Object.assign(days, {
      from: wallOf(rule.from),
      until: wallOf(rule.until === null ? null : new Date(Date.parse(rule.until) - 1).toISOString()),
    }),
  { immediate: true },
)
/** Until a day is until its end. */
const setFrom = () => attempt(async () => gates.setRule(props.gate, { from: dayAt(days.from, '00:00') }))
const setUntil = () =>
  attempt(async () => {
    const start = dayAt(days.until, '00:00')
    const next = start && wallTimeAt(new Date(Date.parse(start) + 36 * 3_600_000), timeZone).slice(0, 10)
    await gates.setRule(props.gate, { until: next && dayAt(next, '00:00') })
  })
watch(
  () => days.from,
  value => (value === '' || /^\d{4}-\d{2}-\d{2}$/.test(value)) && value !== wallOf(rule.value.from) && void setFrom(),
)
watch(
  () => days.until,
  value =>
    (value === '' || /^\d{4}-\d{2}-\d{2}$/.test(value)) &&
    value !== wallOf(rule.value.until === null ? null : new Date(Date.parse(rule.value.until) - 1).toISOString()) &&
    void setUntil(),
)

const numberOf = (value: string) => (value.trim() === '' ? null : Number(value))
const LASTS = [
  { value: 1, title: 'an hour' },
  { value: 24, title: 'a day' },
  { value: 24 * 7, title: 'a week' },
  { value: 24 * 30, title: 'a month' },
  { value: 24 * 365, title: 'a year' },
]
const lasts = computed(() =>
  LASTS.some(({ value }) => value === rule.value.passHours)
    ? LASTS
    : [...LASTS, { value: rule.value.passHours, title: `${rule.value.passHours} hours` }],
)
const door = computed(() => session.fullAddress(`/pass/${props.gate.id}`))
</script>

<template>
  <section class="note" :aria-label="`The gate ${gate.name}`">
    <VTextField :key="gate.id" label="Name" maxlength="120" :model-value="gate.name" @change="rename" />
    <p v-if="gateFault(gate)" class="fault" role="status">{{ gateFault(gate) }}</p>
    <p v-if="gate.wrong >= 20" class="fault" role="status">
      {{ counted(gate.wrong, 'wrong password') }} since {{ longDate(gate.wrongSince!) }}: somebody may be guessing. They are slowed down; a
      longer password keeps them out for good.
    </p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>

    <GatePasswords v-if="rule.kind === 'password'" :gate="gate" />
    <GatePeople v-if="rule.kind === 'people'" :gate="gate" @set="set" />
    <GateEmail v-if="rule.kind === 'email'" :gate="gate" @set="set" />
    <GateTerms :gate="gate" @set="set" />

    <FoldSection heading="When, and how often">
      <div class="pair">
        <DateField v-model="days.from" label="From" />
        <DateField v-model="days.until" label="Until the end of" />
      </div>
      <p class="hint">Days as they are in {{ timeZone.replaceAll('_', ' ') }}. Left empty: always.</p>
      <VTextField
        label="Downloads in all"
        inputmode="numeric"
        placeholder="as many as are wanted"
        :model-value="rule.most?.toString() ?? ''"
        @change="set({ most: numberOf(($event.target as HTMLInputElement).value) })"
      />
      <VTextField
        label="Downloads for each visitor"
        inputmode="numeric"
        placeholder="as many as are wanted"
        :model-value="rule.mostEach?.toString() ?? ''"
        @change="set({ mostEach: numberOf(($event.target as HTMLInputElement).value) })"
      />
      <VTextField
        label="Downloads a day"
        inputmode="numeric"
        placeholder="as many as are wanted"
        :model-value="rule.mostADay?.toString() ?? ''"
        @change="set({ mostADay: numberOf(($event.target as HTMLInputElement).value) })"
      />
      <p class="hint">What somebody takes of one file within a day is one download, however often it breaks off.</p>
      <VSelect
        label="They are asked again after"
        :items="lasts"
        :model-value="rule.passHours"
        @update:model-value="set({ passHours: $event })"
      />
      <VBtn @click="endPasses">Ask everyone again now…</VBtn>
    </FoldSection>

    <FoldSection heading="What visitors read">
      <VTextarea
        label="Above the form"
        rows="2"
        maxlength="2000"
        :model-value="rule.words.before"
        @change="set({ words: { ...rule.words, before: ($event.target as HTMLTextAreaElement).value } })"
      />
      <VTextField
        v-if="rule.kind === 'password'"
        label="Where the password was wrong"
        maxlength="500"
        :model-value="rule.words.refused"
        @change="set({ words: { ...rule.words, refused: ($event.target as HTMLInputElement).value } })"
      />
      <VTextField
        label="Before it opens"
        maxlength="500"
        :model-value="rule.words.early"
        @change="set({ words: { ...rule.words, early: ($event.target as HTMLInputElement).value } })"
      />
      <VTextField
        label="After it has closed"
        maxlength="500"
        :model-value="rule.words.late"
        @change="set({ words: { ...rule.words, late: ($event.target as HTMLInputElement).value } })"
      />
      <VTextField
        label="When all is taken"
        maxlength="500"
        :model-value="rule.words.usedUp"
        @change="set({ words: { ...rule.words, usedUp: ($event.target as HTMLInputElement).value } })"
      />
      <VTextField
        label="Whom they can ask"
        maxlength="200"
        placeholder="office@shop.example"
        :model-value="rule.ask"
        @change="set({ ask: ($event.target as HTMLInputElement).value })"
      />
      <p class="hint">Left empty, Trough says it in the language of the site.</p>
    </FoldSection>

    <FoldSection heading="What others see">
      <VCheckbox
        label="Hide it: without a pass nobody learns that there is anything"
        :model-value="rule.hidden"
        @update:model-value="set({ hidden: !!$event, ...($event && { showsFirst: false }) })"
      />
      <VCheckbox
        v-if="!rule.hidden"
        label="Show the first page to everyone"
        :model-value="rule.showsFirst"
        @update:model-value="set({ showsFirst: !!$event })"
      />
      <p class="hint">
        {{
          rule.hidden
            ? 'Its buttons and lines are left out of pages that everyone reads. Give people the address of the gate:'
            : 'Buttons and shelves say what is asked; sizes, pages and words inside stay behind it.'
        }}
      </p>
      <CopyLine name="Address of the gate" :address="door" />
    </FoldSection>

    <section v-if="uses" aria-labelledby="gate-uses">
      <h2 id="gate-uses">{{ inUse ? `Behind it: ${behindWords(gate)}` : 'Nothing stands behind it yet' }}</h2>
      <ul v-if="inUse" class="uses">
        <li v-for="folder in uses.folders" :key="folder.id">
          <NuxtLink :to="`/desk?folder=${folder.id}`">{{ folder.name }}</NuxtLink> and all below
        </li>
        <li v-for="file in uses.files" :key="file.id">
          <NuxtLink :to="`/desk/files/${file.id}`">{{ file.title }}</NuxtLink>
        </li>
        <li v-for="page in uses.pages" :key="page.id">
          <NuxtLink :to="`/desk/pages/${page.id}`">{{ page.title }}</NuxtLink>, the page
        </li>
      </ul>
      <p v-else class="hint">Open a file, a folder’s settings or a page’s settings, and say there who may have it.</p>
    </section>
    <VBtn color="clay" @click="remove">Take it away…</VBtn>
  </section>
</template>

<style scoped>
.note {
  padding: 12px;
  display: grid;
  gap: 14px;
  align-content: start;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.uses {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
section h2 {
  margin: 0 0 2px;
  font-size: 13px;
  font-weight: 650;
}
.note :deep(.v-expansion-panel-text__wrapper) {
  display: grid;
  gap: 10px;
}
</style>
