<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import { LANGUAGES, LANGUAGE_CODES } from '~~/core/language/languages'
import { firstFactsSchema, firstPagesSchema } from '~~/core/site/firstFacts'
import type { Carried } from '~/composables/carried'

/** The way from an empty Trough to a live site, done and not read. Each step can be done by hand as well, and the way left at any point. */
defineProps<{ publishing: boolean }>()
const emit = defineEmits<{ leave: []; live: [] }>()
const session = useSession()
const pages = usePages()
const uploads = useUploads()
const notices = useNotices()
const LANGUAGE_CHOICES = LANGUAGE_CODES.map(value => ({ value, title: LANGUAGES[value].title }))

const step = ref(0)
const file = ref<FileItem>()
const coming = ref('')
const home = computed(() => pages.items.find(({ slug, edge }) => slug === '' && !edge))
/** it was made here, or is written on otherwise */
const made = ref(false)

function take(item: FileItem) {
  file.value = item
  coming.value = ''
  step.value = 1
}
function bring(local: File | undefined) {
  if (!local) return
  coming.value = local.name
  uploads.add([{ file: local, path: local.name }], { done: take })
}
const choose = async () => bring((await chooseFiles({ multiple: false }))[0])
const { over, target } = useDropOn(true, async ({ files, things }: Carried) => {
  if (files) return bring((await files)[0]?.file)
  const [item] = things ? await useLibrary().meet(things.files) : []
  if (item) take(item)
})

const form = useForm({
  schema: firstFactsSchema.omit({ file: true }),
  begin: () => ({
    name: session.site.name === 'My site' ? '' : session.site.name,
    about: '',
    hours: '',
    phone: '',
    email: '',
    language: session.site.language,
  }),
  send: async facts => {
    const { written } = await ask(firstPagesSchema, '/first-pages', 'POST', { ...facts, file: file.value?.id ?? null })
    await Promise.all([pages.load(), session.load(), useLibrary().refresh()])
    made.value = true
    step.value = 2
    if (!written.length) notices.say('Your pages were written on already: they stay as they are.')
  },
})

// What is known of the site comes a moment later than the board.
watch(() => session.site, form.renew)
</script>

<template>
  <section class="first-hour" aria-labelledby="first-head">
    <header>
      <div>
        <h2 id="first-head">From an empty Trough to a site that gives your first file</h2>
        <p class="hint">Four steps, in any order. Whatever they make is yours to change.</p>
      </div>
      <VBtn color="soft" @click="emit('leave')">I’ll do it by hand</VBtn>
    </header>
    <VExpansionPanels v-model="step" variant="accordion" class="steps">
      <VExpansionPanel>
        <VExpansionPanelTitle>
          <span class="number" :class="{ done: file }">1</span><b>A first file</b>
          <span class="hint">{{ file ? file.title : 'a price list, a form, a manual' }}</span>
        </VExpansionPanelTitle>
        <VExpansionPanelText>
          <div v-drop="target" class="drop" :class="{ over }">
            <p v-if="coming" role="status">“{{ coming }}” is on its way…</p>
            <template v-else>
              <p>Drop it here, from your computer or from the library.</p>
              <VBtn variant="flat" @click="choose">Choose a file…</VBtn>
            </template>
          </div>
        </VExpansionPanelText>
      </VExpansionPanel>
      <VExpansionPanel>
        <VExpansionPanelTitle>
          <span class="number" :class="{ done: made }">2</span><b>Your shop, in a few lines</b>
          <span class="hint">name, phone, hours: what visitors ask first</span>
        </VExpansionPanelTitle>
        <VExpansionPanelText>
          <VForm class="facts" @submit.prevent="form.submit">
            <VTextField v-bind="form.field('name')" label="Name of the shop" maxlength="120" />
            <VSelect v-bind="form.field('language')" label="Language of the site" :items="LANGUAGE_CHOICES" />
            <VTextarea v-bind="form.field('about')" class="wide" label="What it is, in two sentences" rows="2" maxlength="600" />
            <VTextarea
              v-bind="form.field('hours')"
              label="Opening hours, a line each"
              rows="3"
              maxlength="600"
              placeholder="Monday to Friday, 8 to 5"
            />
            <div class="reach">
              <VTextField v-bind="form.field('phone')" label="Phone" inputmode="tel" maxlength="40" />
              <VTextField v-bind="form.field('email')" label="E-mail" inputmode="email" maxlength="254" />
            </div>
            <p v-if="form.problem.value" class="problem wide" role="alert">{{ form.problem.value }}</p>
            <div class="acts wide">
              <VBtn type="submit" variant="flat" :loading="form.busy.value">Make the pages</VBtn>
              <span class="hint"
                >A home page and a page of downloads{{ file ? ` that carry “${file.title}”` : '' }}. Nobody sees them yet.</span
              >
            </div>
          </VForm>
        </VExpansionPanelText>
      </VExpansionPanel>
      <VExpansionPanel>
        <VExpansionPanelTitle>
          <span class="number">3</span><b>A style</b> <span class="hint">your own home page in six of them</span>
        </VExpansionPanelTitle>
        <VExpansionPanelText>
          <StyleGallery :key="String(made)" @taken="step = 3" />
          <VBtn @click="step = 3">Go on with the one it has</VBtn>
        </VExpansionPanelText>
      </VExpansionPanel>
      <VExpansionPanel>
        <VExpansionPanelTitle>
          <span class="number">4</span><b>Try it, and go live</b> <span class="hint">press the button; get your file</span>
        </VExpansionPanelTitle>
        <VExpansionPanelText>
          <ScaledFrame
            v-if="home"
            :key="home.changed"
            class="trial"
            :source="`/api/pages/${home.id}/preview?changed=${home.changed}`"
            title="Your home page as visitors would get it"
            :width="1280"
            sandbox="allow-popups allow-downloads"
          />
          <div class="acts">
            <VBtn variant="flat" :disabled="!pages.waiting.length || publishing" @click="emit('live')">{{
              publishing ? 'Going live…' : 'Go live'
            }}</VBtn>
            <NuxtLink v-if="home" :to="`/desk/pages/${home.id}`" class="plain">Write on the home page first</NuxtLink>
          </div>
        </VExpansionPanelText>
      </VExpansionPanel>
    </VExpansionPanels>
  </section>
</template>

<style scoped>
.first-hour {
  padding: 14px 16px 18px;
  background: #f5f8f7;
  border-bottom: 1px solid var(--line);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: 12px;
  margin-bottom: 10px;
}
h2 {
  font-size: 16px;
  font-weight: 600;
}
.steps {
  border: 1px solid var(--line);
  border-radius: 4px;
  background: #fff;
}
.steps :deep(.v-expansion-panel-title) {
  padding: 10px 14px;
}
.steps :deep(.v-expansion-panel-text__wrapper) {
  padding: 4px 14px 14px;
}
.number {
  flex: none;
  display: inline-grid;
  place-items: center;
  width: 22px;
  height: 22px;
  margin-right: 10px;
  border: 1px solid var(--water);
  border-radius: 50%;
  color: var(--water);
  font-size: 12.5px;
  font-weight: 600;
}
.number.done {
  background: var(--moss);
  border-color: var(--moss);
  color: #fff;
}
.steps b {
  margin-right: 10px;
  font-weight: 600;
}
.drop {
  display: grid;
  justify-items: center;
  gap: 8px;
  padding: 28px 16px;
  border: 2px dashed #9db3ae;
  border-radius: 4px;
}
.drop.over {
  border-color: var(--water);
  background: #eef5f3;
}
.facts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  align-items: start;
  gap: 10px 14px;
}
.wide {
  grid-column: 1 / -1;
}
.reach {
  display: grid;
  gap: 10px;
  align-content: start;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin-top: 8px;
}
.trial {
  height: 460px;
  border: 1px solid var(--line);
}
@container (max-width: 560px) {
  .facts {
    grid-template-columns: 1fr;
  }
  header {
    flex-direction: column;
  }
}
</style>
