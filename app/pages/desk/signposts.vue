<script setup lang="ts">
import { newSignpostSchema } from '~~/core/signposts/signpostItem'
import type { FileItem } from '~~/core/files/fileItem'

/** The names of the site that point at what is current. */
const signposts = useSignposts()
const timetable = useTimetable()
const library = useLibrary()
const route = useRoute()
const failure = ref('')
useHead({ title: 'Signposts' })

const chosen = computed(() => signposts.byId.get(String(route.query.at ?? '')) ?? signposts.items[0])
const choose = (id: string) => navigateTo({ query: { ...route.query, at: id } }, { replace: true })
/** what a signpost is about to be pointed at */
const turning = shallowRef<{ id: string; file: FileItem }>()
const turned = computed(() => turning.value && signposts.byId.get(turning.value.id))

const HEADERS = [
  { title: 'Signpost', key: 'title', width: '46%' },
  { title: 'Points at', key: 'points' },
  { title: 'Places', key: 'uses', width: 96 },
]
/** by the name of what they point at, too, can they be sorted */
const rows = computed(() =>
  signposts.items.map(signpost => ({ ...signpost, points: signpost.file ? (library.known.get(signpost.file)?.title ?? '') : '' })),
)

const adding = ref(false)
const {
  field,
  submit,
  problem: refusal,
  busy,
  leave,
} = useForm({
  schema: newSignpostSchema.pick({ title: true }),
  begin: () => ({ title: '' }),
  send: async ({ title }) => {
    const made = await signposts.create(title, null)
    adding.value = false
    await choose(made.id)
  },
})

async function load() {
  failure.value = ''
  try {
    await Promise.all([signposts.load(), timetable.load()])
  } catch (error) {
    failure.value = wordsOf(error)
  }
}
onMounted(load)
</script>

<template>
  <MarginBoard heading="Signposts" class="signposts">
    <template #acts><VBtn variant="outlined" @click="adding = !adding">New signpost</VBtn></template>
    <VForm v-if="adding" class="new" @submit.prevent="submit" @keydown.esc="leave(() => (adding = false))">
      <VTextField v-focus v-bind="field('title')" label="What is it for?" maxlength="120" placeholder="Current price list" />
      <p v-if="refusal" class="problem" role="alert">{{ refusal }}</p>
      <div class="acts">
        <VBtn type="submit" variant="outlined" :loading="busy">Put it up</VBtn><VBtn @click="adding = false">Cancel</VBtn>
      </div>
    </VForm>
    <p v-if="failure" class="say" role="alert">{{ failure }} <VBtn @click="load">Try again</VBtn></p>
    <VSkeletonLoader v-else-if="!signposts.loaded" type="list-item-two-line@6" loading-text="Reading the signposts…" />
    <div v-else-if="!signposts.items.length" class="say empty">
      <p><b>One name for what changes.</b></p>
      <p>
        “Current price list” or “Summer timetable”: point it at a file, and lead buttons to the signpost. When the next file comes, turn the
        signpost once, now or at a set time. All that leads to it follows, and its address stays the same for ever.
      </p>
      <VBtn v-if="!adding" variant="outlined" @click="adding = true">Put up the first one</VBtn>
    </div>
    <template v-if="signposts.loaded && signposts.items.length" #list>
      <VDataTable :headers="HEADERS" :items="rows" item-value="id">
        <template #item="{ item }">
          <SignpostRow
            :key="item.id"
            :signpost="item"
            :chosen="item.id === chosen?.id"
            @choose="choose(item.id)"
            @point="turning = { id: item.id, file: $event }"
          />
        </template>
      </VDataTable>
      <p class="hint">Drop a file on a signpost, and it points there.</p>
    </template>
    <template v-if="chosen" #margin>
      <SignpostNote :signpost="chosen" @point="turning = { id: chosen.id, file: $event }" />
    </template>
    <TurnDialog v-if="turning && turned" :signpost="turned" :to="turning.file" @close="turning = undefined" />
  </MarginBoard>
</template>

<style scoped>
p.hint {
  padding: 12px 14px;
}
</style>
