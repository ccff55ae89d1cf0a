<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import type { PageSettings } from '~~/core/page/pageItem'
import { writtenSlugSchema } from '~~/core/page/slug'

/** What is said of the open page at once, draft and live: its address, and what is shown of it elsewhere. */
const page = usePage()
const notices = useNotices()

const current = computed(() => page.current!)
/** It is what all entries of a catalogue are laid out in: each has an address and words of its own. */
const ofEntries = computed(() => current.value.edge === 'entry')
const slug = ref(current.value.slug)
const description = ref(current.value.description)
const { problem, attempt } = useAttempt()
watch(
  () => current.value.slug,
  now => (slug.value = now),
)

const set = (settings: PageSettings) => attempt(() => page.setUp(settings))

/** shown where other programs preview a link to this page */
const shared = computed(() => (current.value.picture ? useLibrary().known.get(current.value.picture) : undefined))
const choosing = ref(false)
function show(file: FileItem) {
  choosing.value = false
  void set({ picture: file.id })
}

const refusal = ref('')
async function move() {
  const from = current.value.slug
  const { success, data: to, error } = writtenSlugSchema.safeParse(slug.value)
  refusal.value = success ? '' : error.issues[0]!.message
  if (!success) return
  slug.value = to
  if (from === to) return
  try {
    await page.setUp({ slug: to })
  } catch (caught) {
    refusal.value = wordsOf(caught)
    return
  }
  notices.say(`The page is at /${to} now; /${from} leads there.`, {
    tone: 'works',
    action: { label: 'Undo', run: () => void set({ slug: from }) },
  })
}
</script>

<template>
  <div class="fields">
    <VTextField
      v-if="current.slug && !ofEntries"
      v-model="slug"
      label="Address of this page"
      prefix="/"
      maxlength="80"
      spellcheck="false"
      :error-messages="refusal"
      @update:model-value="refusal = ''"
      @change="move"
    />
    <p v-else-if="!ofEntries" class="hint">The home page, at <code>/</code>.</p>
    <VTextarea
      v-if="!ofEntries"
      v-model="description"
      label="In a few words, for search engines"
      rows="3"
      maxlength="300"
      @change="set({ description })"
    />
    <VCheckbox
      v-if="!ofEntries"
      label="In the site’s menu while it is live"
      :model-value="current.inMenu"
      @update:model-value="set({ inMenu: !!$event })"
    />
    <GateSelect
      :model-value="current.gate"
      :label="ofEntries ? 'Who may read the pages of entries' : 'Who may read it'"
      :title="current.title"
      :above="null"
      @update:model-value="set({ gate: $event })"
    />
    <div class="field shared">
      <span>Picture that goes with links to {{ ofEntries ? 'entries without one of their own' : 'this page' }}</span>
      <span class="chosen">
        <template v-if="shared"
          ><FilePicture :file="shared" class="thumb" /><b>{{ shared.title }}</b></template
        >
        <VBtn @click="choosing = !choosing">{{ shared ? 'Another…' : 'Choose a picture…' }}</VBtn>
        <VBtn v-if="shared" @click="set({ picture: null })">None</VBtn>
      </span>
      <FileFinder
        v-if="choosing"
        label="Find a picture for links to this page"
        :types="['picture']"
        @choose="show"
        @close="choosing = false"
      />
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 12px;
  align-content: start;
}
.chosen {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
}
.shared b {
  font-weight: 500;
}
.thumb {
  width: 48px;
  height: 36px;
}
</style>
