<script setup lang="ts">
import type { BundleUse } from '~~/core/bundle/retarget'
import type { Use } from '~~/core/files/fileItem'
import { TARGET_ICONS } from '~/editor/targetIcons'
import type { Named } from '~/stores/targets'

/** Before something else takes the place of a target everywhere: what, and where. */
const props = defineProps<{ from: Named }>()
const emit = defineEmits<{ close: [] }>()
const targets = useTargets()
const { problem, attempt } = useAttempt()
const isFile = props.from.target.kind === 'file'
const places = shallowRef<{ uses: Use[]; bundles: BundleUse[] }>()
const other = shallowRef<Named>()
const file = computed(() => (other.value?.target.kind === 'file' ? useLibrary().known.get(other.value.target.id) : undefined))

onMounted(() => attempt(async () => (places.value = await targets.places(props.from.target))))

/** Kinds of places that lead somewhere; the rest shows a file, or holds it. */
const LEADING = ['button', 'link', 'card']
const onlyLeading = computed(() => isFile && !!other.value && other.value.target.kind !== 'file')
const following = computed(() =>
  (places.value?.uses ?? []).filter(use => !onlyLeading.value || (LEADING.includes(use.kind) && use.by === null)),
)
const holding = computed(() => (onlyLeading.value ? [] : (places.value?.bundles ?? [])))
/** a file is shown somewhere, where nothing but a file can stand */
const staying = computed(
  () => onlyLeading.value && !!places.value && following.value.length < places.value.uses.length + places.value.bundles.length,
)
const count = computed(() => following.value.length + holding.value.length)

/** Labels that were written stay as they are. */
const replace = () =>
  attempt(async () => {
    await targets.replace(props.from, other.value!)
    emit('close')
  })
</script>

<template>
  <VDialog :model-value="true" max-width="600" aria-labelledby="replace-head" @update:model-value="emit('close')">
    <div class="dialog">
      <h2 id="replace-head">
        {{ isFile ? `Another file in the place of “${from.title}”` : `Something else in the place of “${from.title}”` }}
      </h2>
      <p class="hint">
        {{
          isFile
            ? 'For its next edition, choose “Next edition…” instead: then its address stays, too. Buttons and links can also lead to a signpost, a page or an address.'
            : 'Whatever leads there leads to what you choose now: a file, a signpost, a page or an address. Labels that were written stay.'
        }}
      </p>
      <FileFinder
        v-if="!other"
        :label="isFile ? 'Find the file that takes its place' : 'Find what they lead to instead'"
        :except="from.target.kind === 'file' ? [from.target.id] : []"
        anywhere
        @choose="other = { target: { kind: 'file', id: $event.id }, title: $event.title }"
        @lead="(target, title) => (other = { target, title })"
        @close="emit('close')"
      />
      <p v-else class="chosen">
        <TypeTag v-if="file" :tag="file.tag" :family="file.family" /><VIcon v-else :icon="TARGET_ICONS[other.target.kind]" size="18" />
        <b>{{ other.title }}</b> <VBtn @click="other = undefined">Another one…</VBtn>
      </p>
      <section v-if="places" class="what">
        <h3>
          {{
            !count
              ? 'No place leads there'
              : isFile && !onlyLeading
                ? `${counted(count, 'place')} will have it`
                : `${counted(count, 'place')} will lead there`
          }}
        </h3>
        <p v-if="staying" class="hint">Pictures, shelves, signposts and bundles keep “{{ from.title }}”: only a file can stand there.</p>
        <div class="list">
          <PlaceList :uses="following" />
          <p v-for="bundle in holding" :key="bundle.bundleId">
            <NuxtLink :to="`/desk/files/${bundle.bundleId}`">{{ bundle.bundleTitle }}</NuxtLink> bundle
          </p>
        </div>
      </section>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <VBtn v-if="other && count" v-focus variant="flat" @click="replace">
          {{
            isFile && file ? `Put it in all ${counted(count, 'place')}` : `Lead ${count === 1 ? 'that place' : `all ${count} places`} there`
          }}
        </VBtn>
        <VBtn @click="emit('close')">Leave it as it is</VBtn>
      </div>
    </div>
  </VDialog>
</template>

<style scoped>
.what {
  width: 100%;
}
.list {
  max-height: 200px;
  overflow: auto;
}
.chosen {
  display: flex;
  gap: 8px;
  align-items: center;
}
h3 {
  margin: 0 0 2px;
  font-size: 13px;
  font-weight: 650;
}
</style>
