<script setup lang="ts">
import { contentCss } from '~~/core/page/pageCss'
import { COSTS, type Cost } from '~~/core/walk/finding'

/** What visitors meet on the live pages: found by following every button and link as they would. */
const checks = useChecks()
const looks = useLooks()
const failure = ref('')
const { problem, attempt } = useAttempt()

const COST_WORDS: Record<Cost, string> = {
  blocked: 'Stops visitors',
  misled: 'Misleads visitors',
  hard: 'Hard to use',
  tidy: 'Could be tidier',
}

/** Findings by what they cost and by what finds them. */
const groups = computed(() =>
  COSTS.map(cost => ({
    cost,
    kinds: (checks.state?.checks ?? [])
      .filter(check => check.cost === cost)
      .map(check => ({ ...check, findings: checks.open.filter(finding => finding.check === check.name) }))
      .filter(({ findings }) => findings.length),
  })).filter(({ kinds }) => kinds.length),
)

const verdict = computed(() => {
  const {
    counts: { blocked, misled, hard, tidy },
    placements,
  } = checks.state!
  if (!placements) return 'No page is live yet.'
  if (blocked) return `${counted(blocked, 'place')} ${blocked === 1 ? 'stops' : 'stop'} visitors.`
  if (misled) return `Everything arrives. ${counted(misled, 'place')} ${misled === 1 ? 'misleads' : 'mislead'} visitors.`
  return hard || tidy ? 'Everything arrives, and says what it is.' : 'All that visitors meet is as it should be.'
})

async function load() {
  failure.value = ''
  try {
    await Promise.all([checks.load(), looks.load()])
  } catch (error) {
    failure.value = wordsOf(error)
  }
}
onMounted(load)
useHead({ title: 'Checks', style: [{ innerHTML: () => contentCss(looks.style) + looks.css, key: 'page-content' }] })
</script>

<template>
  <div class="checks">
    <header class="board-head">
      <BackLink />
      <h1>Checks</h1>
      <VBtn variant="outlined" :disabled="checks.walking" @click="attempt(checks.walk)">
        {{ checks.walking ? 'Walking…' : 'Walk it all again' }}
      </VBtn>
    </header>
    <p v-if="failure" class="failure" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <p v-else-if="!checks.state" class="failure hint" role="status">Walking every button and link, as a visitor would…</p>
    <div v-else class="sheet">
      <section class="summary" :class="{ stopped: checks.state.counts.blocked, fine: !checks.urgent }" aria-live="polite">
        <div>
          <p class="verdict">{{ verdict }}</p>
          <p class="hint">
            {{ counted(checks.state.placements, 'button, link, picture and shelf', 'buttons, links, pictures and shelves') }} on
            {{ counted(checks.state.pages, 'live page') }}, the head and foot among them; walked {{ longDate(checks.state.at) }} without
            being signed in. Each change is walked again by itself, and everything once a day.
          </p>
          <VCheckbox
            label="Ask addresses elsewhere, too, whether they answer: once a day each"
            :model-value="checks.state.outside"
            :disabled="checks.walking"
            @update:model-value="attempt(() => checks.askOutside(!checks.state!.outside))"
          />
        </div>
        <WalkHistory v-if="checks.state.earlier.length > 1" :walks="checks.state.earlier" />
      </section>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <section v-for="{ cost, kinds } in groups" :key="cost" :aria-labelledby="`cost-${cost}`">
        <CostHeading :id="`cost-${cost}`" :cost="cost">{{ COST_WORDS[cost] }}</CostHeading>
        <div v-for="kind in kinds" :key="kind.name" class="kind">
          <div class="kind-head">
            <div>
              <h3>{{ kind.title }}</h3>
              <p class="hint">{{ kind.why }}</p>
            </div>
            <VBtn
              v-if="kind.findings.filter(finding => finding.act).length > 1"
              variant="outlined"
              @click="attempt(() => checks.mend(kind.findings.filter(finding => finding.act)))"
            >
              Mend all {{ kind.findings.filter(finding => finding.act).length }}
            </VBtn>
          </div>
          <ul>
            <FindingRow v-for="finding in kind.findings" :key="finding.key" :finding="finding" />
          </ul>
        </div>
      </section>
      <AskedInVain />
      <FoldSection
        v-if="checks.left.length"
        class="left"
        :heading="`${counted(checks.left.length, 'finding')} left as ${checks.left.length === 1 ? 'it is' : 'they are'}`"
      >
        <ul>
          <FindingRow v-for="finding in checks.left" :key="finding.key" :finding="finding" />
        </ul>
      </FoldSection>
    </div>
  </div>
</template>

<style scoped>
.checks {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
}
.failure {
  padding: 20px;
}
.sheet {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 0 18px 40px;
  background: #fff;
}
.summary {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 10px 24px;
  align-items: end;
  padding: 14px 0;
}
.verdict {
  font-size: 17px;
  font-weight: 650;
}
.stopped .verdict {
  color: #9a4420;
}
.fine .verdict {
  color: #3c6530;
}
h3 {
  margin: 0;
  font-size: 13.5px;
  font-weight: 650;
}
.kind {
  padding: 2px 0 8px;
}
.kind-head {
  display: flex;
  gap: 14px;
  justify-content: space-between;
  align-items: start;
  padding: 2px 0 6px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.left {
  margin-top: 22px;
  border-top: 1px solid var(--line);
}
.left summary {
  padding: 8px 0;
  cursor: pointer;
}
@container (max-width: 520px) {
  .summary {
    grid-template-columns: minmax(0, 1fr);
  }
  .sheet {
    padding-inline: 12px;
  }
}
</style>
