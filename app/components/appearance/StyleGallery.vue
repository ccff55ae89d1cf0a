<script setup lang="ts">
import { canonical } from '~~/core/canonical'
import { SITE_STYLES, SITE_STYLE_NAMES, dressedIn, type SiteStyleName } from '~~/core/look/siteStyles'
import type { SiteStyle } from '~~/core/look/siteStyle'

/** The finished styles, each as a live page of this site; one is tried on any page before it is taken. */
const emit = defineEmits<{ taken: [] }>()
const looks = useLooks()
const pages = usePages()
const notices = useNotices()
const { problem, attempt } = useAttempt()

const trying = ref<SiteStyleName>()
const slug = ref('')
const onPhone = ref(false)
const live = computed(() => pages.items.filter(page => page.published && !page.edge))
const worn = computed(() => SITE_STYLE_NAMES.find(name => canonical(dressedIn(name, looks.style)) === canonical(looks.style)))
const sourceOf = (name: SiteStyleName, of = '') => `/api/style/preview?style=${name}&slug=${of}`

async function take() {
  const [before, name] = [looks.style, trying.value!]
  const wear = (style: SiteStyle) => attempt(() => looks.setStyle(style))
  if (!(await wear(dressedIn(name, before)))) return
  trying.value = undefined
  emit('taken')
  notices.say(`All pages wear “${SITE_STYLES[name].title}” now.`, {
    tone: 'works',
    action: { label: 'Undo', run: () => void wear(before) },
  })
}
</script>

<template>
  <section class="gallery" aria-label="Finished styles">
    <h2>Style <span>Your own home page in each; try one on any page before you take it</span></h2>
    <ul>
      <li v-for="name in SITE_STYLE_NAMES" :key="name" :class="{ worn: worn === name }">
        <div class="window" aria-hidden="true">
          <iframe :src="sourceOf(name)" :title="SITE_STYLES[name].title" sandbox="" tabindex="-1" loading="lazy" />
        </div>
        <VBtn class="pick" color="ink" @click="trying = name">
          <b>{{ SITE_STYLES[name].title }}</b>
          <span>{{ worn === name ? 'Worn now' : SITE_STYLES[name].hint }}</span>
        </VBtn>
      </li>
    </ul>
    <p v-if="problem" class="hint clay" role="alert">{{ problem }}</p>
    <VDialog
      v-if="trying"
      :model-value="true"
      width="min(1320px, 96vw)"
      max-width="none"
      aria-labelledby="try-head"
      @update:model-value="trying = undefined"
    >
      <div class="dialog">
        <h2 id="try-head">
          {{ SITE_STYLES[trying].title }} <span class="hint">{{ SITE_STYLES[trying].hint }}</span>
        </h2>
        <div class="bar">
          <VSelect v-model="slug" class="small" label="On the page" :items="live" item-title="title" item-value="slug" />
          <VCheckbox v-model="onPhone" label="As on a phone" />
        </div>
        <ScaledFrame
          class="stage"
          :source="sourceOf(trying, slug)"
          :title="`A page in the style ${SITE_STYLES[trying].title}`"
          :width="onPhone ? 390 : 1280"
        />
        <p v-if="problem" class="hint clay" role="alert">{{ problem }}</p>
        <div class="acts">
          <VBtn v-focus variant="flat" :disabled="worn === trying" @click="take">Take this style</VBtn>
          <VBtn @click="trying = undefined">Not this one</VBtn>
        </div>
      </div>
    </VDialog>
  </section>
</template>

<style scoped>
.gallery h2 {
  font-size: 15px;
  font-weight: 600;
  margin: 0 0 6px;
}
.gallery h2 span {
  font-weight: 400;
  font-size: 12.5px;
  color: var(--soft);
  margin-left: 8px;
}
ul {
  list-style: none;
  margin: 0 0 18px;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 12px;
}
li {
  border: 1px solid var(--line);
  border-radius: 4px;
  overflow: hidden;
}
.worn {
  outline: 2px solid var(--water);
}
.window {
  height: 150px;
  overflow: hidden;
  border-bottom: 1px solid var(--line);
  pointer-events: none;
}
.window iframe {
  border: 0;
  width: 1100px;
  height: 720px;
  transform: scale(0.21);
  transform-origin: top left;
}
@container (min-width: 700px) {
  .window iframe {
    transform: scale(0.222);
  }
}
.pick {
  width: 100%;
  justify-content: start;
  height: auto;
  padding: 6px 10px;
}
.pick :deep(.v-btn__content) {
  display: grid;
  justify-items: start;
  white-space: normal;
  text-align: left;
}
.pick span {
  color: var(--soft);
  font-size: 12px;
  font-weight: 400;
}
.bar {
  display: grid;
  grid-template-columns: minmax(0, 260px) auto;
  justify-content: start;
  align-items: end;
  gap: 6px 16px;
}
.stage {
  height: min(64vh, 720px);
}
</style>
