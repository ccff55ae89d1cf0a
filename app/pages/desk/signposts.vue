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
  <div class="signposts">
    <header class="board-head">
      <NuxtLink to="/desk" class="back">Pages</NuxtLink>
      <h1>Signposts</h1>
      <VBtn variant="outlined" @click="adding = !adding">New signpost</VBtn>
    </header>
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
    <div v-else class="sheet">
      <div class="list">
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
      </div>
      <SignpostNote v-if="chosen" :signpost="chosen" class="margin" @point="turning = { id: chosen.id, file: $event }" />
    </div>
    <TurnDialog v-if="turning && turned" :signpost="turned" :to="turning.file" @close="turning = undefined" />
  </div>
</template>

<style scoped>
.signposts {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
}
.new {
  display: grid;
  gap: 8px;
  padding: 12px 16px;
  background: #fff;
  border-bottom: 1px solid var(--line);
}
.say {
  padding: 16px;
}
.empty {
  display: grid;
  gap: 8px;
  justify-items: start;
  max-width: 560px;
  line-height: 1.5;
}
.sheet {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 312px;
}
p.hint {
  padding: 12px 14px;
}
.list {
  min-height: 0;
  overflow: auto;
}
.margin {
  min-height: 0;
  overflow: auto;
  border-left: 1px solid var(--line);
}
@container (max-width: 680px) {
  .sheet {
    display: block;
    overflow: auto;
  }
  .list,
  .margin {
    overflow: visible;
  }
  .margin {
    border-left: 0;
    border-top: 1px solid var(--line);
  }
}
</style>
