<script setup lang="ts">
import { GATE_KINDS, gateRuleSchema, newGateSchema } from '~~/core/gate/gate'

/** Who may have what is not for everyone. */
const gates = useGates()
const route = useRoute()
const failure = ref('')
const adding = ref(route.query.new !== undefined)
useHead({ title: 'Gates' })

const chosen = computed(() => gates.byId.get(String(route.query.at ?? '')) ?? gates.items[0])
const choose = (id: string) => navigateTo({ query: { at: id } }, { replace: true })
const HEADERS = [
  { title: 'Gate', key: 'name' },
  { title: 'Behind it', key: 'behind', sortable: false },
  { title: 'Let through', key: 'taken', align: 'end' },
] as const

const KINDS = GATE_KINDS.map(kind => ({
  value: kind,
  title: { password: 'A password', email: 'An e-mail address', people: 'Who it is: named people', terms: 'That terms are accepted' }[kind],
}))
const kind = ref<(typeof GATE_KINDS)[number]>('password')
const terms = ref('')
const {
  field,
  submit,
  problem: refusal,
  busy,
  leave,
} = useForm({
  schema: newGateSchema.pick({ name: true }),
  begin: () => ({ name: '' }),
  send: async ({ name }) => {
    const rule = gateRuleSchema.parse({ kind: kind.value, terms: kind.value === 'terms' ? { text: terms.value, file: null } : null })
    const made = await gates.create({ name, rule, ...(kind.value === 'password' && { password: offeredPassword() }) })
    adding.value = false
    await choose(made.id)
  },
})

async function load() {
  failure.value = ''
  try {
    await gates.load()
  } catch (error) {
    failure.value = wordsOf(error)
  }
}
onMounted(load)
</script>

<template>
  <MarginBoard heading="Gates">
    <template #acts><VBtn variant="outlined" @click="adding = !adding">New gate</VBtn></template>
    <VForm v-if="adding" class="new" @submit.prevent="submit" @keydown.esc="leave(() => (adding = false))">
      <VTextField v-focus v-bind="field('name')" label="Whom is it for?" maxlength="120" placeholder="Trade buyers" />
      <VSelect v-model="kind" label="What it asks for" :items="KINDS" />
      <VTextarea v-if="kind === 'terms'" v-model="terms" label="The terms" rows="4" maxlength="20000" />
      <p v-if="refusal" class="problem" role="alert">{{ refusal }}</p>
      <div class="acts">
        <VBtn type="submit" variant="outlined" :loading="busy" :disabled="kind === 'terms' && !terms.trim()">Make it</VBtn
        ><VBtn @click="adding = false">Cancel</VBtn>
      </div>
    </VForm>
    <p v-if="failure" class="say" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <VSkeletonLoader v-else-if="!gates.loaded" type="list-item-two-line@6" loading-text="Reading the gates…" />
    <div v-else-if="!gates.items.length && !adding" class="say empty">
      <p><b>Files that are not for everyone.</b></p>
      <p>
        A gate asks for a password, for an e-mail address, or that terms are accepted. Put it on a file, a folder with all below, or a page:
        where it says who may have it. One gate serves as many as you like.
      </p>
      <VBtn variant="outlined" @click="adding = true">Make the first one</VBtn>
    </div>
    <template v-if="gates.loaded && gates.items.length" #list>
      <VDataTable :headers="HEADERS" :items="gates.items" item-value="id" :items-per-page="-1">
        <template #item="{ item }">
          <tr :class="{ chosen: item.id === chosen?.id }" @click="choose(item.id)">
            <td>
              <VBtn color="ink" class="name" :aria-pressed="item.id === chosen?.id" @click.stop="choose(item.id)">
                <b>{{ item.name }}</b>
                <span>{{ GATE_KIND_WORDS[item.rule.kind] }}</span>
              </VBtn>
              <span v-if="gateFault(item)" class="fault">{{ gateFault(item) }}</span>
            </td>
            <td>{{ behindWords(item) }}</td>
            <td class="number">{{ item.taken.toLocaleString() }}</td>
          </tr>
        </template>
      </VDataTable>
    </template>
    <template v-if="chosen" #margin><GateNote :key="chosen.id" :gate="chosen" /></template>
  </MarginBoard>
</template>

<style scoped>
td.number {
  text-align: right;
}
.name :deep(.v-btn__content) {
  display: grid;
  justify-items: start;
}
.name span {
  color: var(--soft);
  font-weight: 400;
}
td .fault {
  display: block;
}
</style>
