<script setup lang="ts">
import type { Comparison, Doubt } from '~~/core/editions/comparison'
import type { Relabelled } from '~/stores/editions'

/** The edition that visitors get beside the one that is to take over, before it does. */
const editions = useEditions()
const { problem, attempt } = useAttempt()
const open = computed(() => editions.open!)
const comparison = ref<Comparison>()
const busy = ref(false)
const setting = ref(false)

const DOUBT_WORDS: Record<Doubt, string> = {
  'same-bytes': 'It is the same file, byte for byte: nothing would change.',
  'other-type': 'It is of another type. Buttons that say what type they give follow only where that was put in as a placeholder.',
  'far-smaller': 'It is far smaller: is something missing?',
  'little-in-common': 'It has hardly a word in common with the one before: is it the right document?',
  'older': 'It is older than the one that visitors get now.',
}

async function load() {
  await attempt(async () => (comparison.value = await editions.compare(open.value)))
}
/** labels that speak of the edition before, with those that fit */
const labels = shallowRef<Relabelled[]>([])
const follow = ref(true)
const once = whenever(comparison, async held => {
  once()
  await attempt(async () => (labels.value = await editions.labelsOf(open.value, held)))
})
const putLive = () => act(waiting => editions.show(waiting, follow.value ? labels.value : []))

const { pause } = useIntervalFn(
  () => {
    if (comparison.value && !comparison.value.reading) pause()
    else void load()
  },
  700,
  { immediateCallback: true },
)

async function act(what: (edition: typeof open.value) => Promise<unknown>) {
  busy.value = true
  await attempt(() => what(open.value))
  busy.value = false
}
const follows = computed(() =>
  open.value.file.uses
    ? `${counted(open.value.file.uses, 'place')} and its address follow at once.`
    : 'Its address stays, and gives the new one at once.',
)
</script>

<template>
  <VDialog :model-value="true" max-width="780" aria-labelledby="edition-head" @update:model-value="editions.open = undefined">
    <div class="dialog">
      <h2 id="edition-head">Next edition of “{{ open.file.title }}”</h2>
      <template v-if="comparison">
        <ul v-if="comparison.doubts.length" class="doubts">
          <li v-for="doubt in comparison.doubts" :key="doubt">{{ DOUBT_WORDS[doubt] }}</li>
        </ul>
        <div class="sides">
          <EditionSide head="Visitors get now" :file-id="open.file.id" :edition="comparison.now" :other="comparison.next" />
          <EditionSide head="Next" :file-id="open.file.id" :edition="comparison.next" :other="comparison.now" />
        </div>
        <section v-if="labels.length" class="texts" aria-label="Labels that speak of the one before">
          <VCheckbox
            v-model="follow"
            :label="labels.length === 1 ? 'The label of one place follows, too' : `The labels of ${labels.length} places follow, too`"
          />
          <ul class="labels">
            <li v-for="each in labels" :key="`${each.page} ${each.placement}`">
              <s>{{ each.before }}</s> <b>{{ each.words }}</b> <span class="hint">on “{{ each.pageTitle }}”</span>
            </li>
          </ul>
        </section>
        <section class="texts" aria-live="polite">
          <h3>What changed in the text</h3>
          <p v-if="comparison.reading" class="hint">The words are still being read…</p>
          <TextChanges v-else-if="comparison.texts" :texts="comparison.texts" />
          <p v-else class="hint">Neither has words that can be read.</p>
        </section>
      </template>
      <p v-else-if="!problem" class="hint" role="status">Holding the two against each other…</p>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <SetTime v-if="setting" label="It goes live at" :act="at => editions.plan(open, at)" @close="setting = false" />
        <p class="hint">{{ follows }}</p>
        <VBtn v-focus variant="flat" :disabled="busy" @click="putLive">Put it live</VBtn>
        <VBtn variant="outlined" :disabled="busy" @click="setting = true">At a set time…</VBtn>
        <VBtn @click="editions.open = undefined">Keep it waiting</VBtn>
        <VBtn
          v-if="open.only"
          :disabled="busy"
          title="It becomes a file of its own; all other places keep theirs"
          @click="act(editions.leadOnly)"
        >
          Lead only this button to it
        </VBtn>
        <VBtn v-else :disabled="busy" @click="act(editions.keepBoth)">It is another file: keep both</VBtn>
        <VBtn color="clay" :disabled="busy" @click="act(editions.discard)">Throw it away</VBtn>
      </div>
    </div>
  </VDialog>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
  width: 100%;
}
.texts {
  width: 100%;
}
.acts {
  position: sticky;
  bottom: -20px;
  width: 100%;
  margin: 0 0 -20px;
  padding: 8px 0 14px;
  background: #fff;
  border-top: 1px solid var(--line);
}
.acts .hint {
  width: 100%;
}
.doubts {
  margin: 0;
  padding: 8px 12px 8px 28px;
  width: 100%;
  background: #f6e3d8;
  border-left: 4px solid var(--clay);
  line-height: 1.5;
}
.labels {
  margin: 2px 0 0;
  padding-left: 34px;
  max-height: 110px;
  overflow: auto;
}
.labels b {
  font-weight: 600;
}
h3 {
  margin: 0;
  font-size: 13px;
  font-weight: 650;
}
@media (max-width: 560px) {
  .sides {
    gap: 10px;
  }
}
</style>
