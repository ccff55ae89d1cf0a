<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import { tonePalettes } from '~~/core/look/palette'
import { sectionContrast } from '~~/core/look/sectionContrast'
import { newPlacementId } from '~~/core/page/insert'
import type { SectionAttrs } from '~~/core/page/schema'
import { FIRST_VEIL } from '~~/core/page/sectionPicture'

/** The picture behind a section, and how well words can be read over it. */
const props = defineProps<{ attrs: SectionAttrs; /** words that lead somewhere stand over it */ links: boolean }>()
const emit = defineEmits<{ set: [attrs: Partial<SectionAttrs>] }>()

const { known, learn } = useLibrary()
const looks = useLooks()
const sampleOf = usePictureSamples()
const choosing = ref(false)
const file = computed(() => (props.attrs.picture ? known.get(props.attrs.picture) : undefined))
const veil = computed(() => props.attrs.veil ?? FIRST_VEIL)

function show(chosen: FileItem) {
  choosing.value = false
  learn([chosen])
  emit('set', { picture: chosen.id, placement: props.attrs.placement ?? newPlacementId(), veil: veil.value })
}

const contrast = computed(() => {
  if (!props.attrs.picture || !sampleOf(props.attrs.picture)) return undefined
  const { palette, dark } = looks.style
  const palettes = [palette, ...(dark ? [dark] : [])].map(each => tonePalettes(each)[props.attrs.tone])
  return sectionContrast({ picture: props.attrs.picture, veil: veil.value, links: props.links }, palettes, sampleOf)
})
const said = computed(() => `${(Math.floor((contrast.value?.ratio ?? 0) * 10) / 10).toFixed(1)} to 1`)
</script>

<template>
  <div class="section-picture" role="group" aria-label="Picture behind it">
    <div v-if="attrs.picture" class="shown">
      <template v-if="file && !file.deleted"
        ><FilePicture :file="file" class="thumb" /><b>{{ file.title }}</b></template
      >
      <span v-else class="hint clay">The picture is gone; the background is plain.</span>
    </div>
    <div class="acts">
      <VBtn @click="choosing = !choosing">{{ attrs.picture ? 'Another picture…' : 'A picture behind it…' }}</VBtn>
      <VBtn v-if="attrs.picture" @click="emit('set', { picture: null, placement: null, veil: null })">Without picture</VBtn>
    </div>
    <FileFinder v-if="choosing" label="Find a picture for the section" :types="['picture']" @choose="show" @close="choosing = false" />
    <template v-if="attrs.picture">
      <NumberField words="Veil" unit="%" :least="0" :most="100" :step="5" :value="veil" @change="emit('set', { veil: $event })" />
      <div v-if="contrast" role="status">
        <p v-if="contrast.passes" class="works">Easy to read: {{ said }} at the least</p>
        <p v-else class="hint clay">
          Words on it: {{ said }} at the lightest or darkest spot, and 4.5 to 1 is needed.
          <VBtn @click="emit('set', { veil: contrast.veil })">Veil the picture to {{ contrast.veil }} %</VBtn>
        </p>
      </div>
    </template>
  </div>
</template>

<style scoped>
.section-picture {
  display: grid;
  gap: 6px;
}
.shown {
  display: flex;
  align-items: center;
  gap: 8px;
}
.shown b {
  font-weight: 500;
  overflow-wrap: anywhere;
}
.thumb {
  width: 48px;
  height: 36px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-left: -8px;
}
.section-picture :deep(.finder) {
  width: 100%;
}
.works {
  color: #3c6630;
  font-size: 12.5px;
}
</style>
