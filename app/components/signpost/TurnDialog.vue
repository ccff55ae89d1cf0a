<script setup lang="ts">
import type { FileItem, Use } from '~~/core/files/fileItem'
import type { SignpostItem } from '~~/core/signposts/signpostItem'

/** Before a signpost is turned: from what to what, and every place that will change. */
const props = defineProps<{ signpost: SignpostItem; to: FileItem }>()
const emit = defineEmits<{ close: [] }>()
const signposts = useSignposts()
const timetable = useTimetable()
const library = useLibrary()
const { problem, attempt } = useAttempt()
const places = ref<Use[]>()
const from = computed(() => (props.signpost.file ? library.known.get(props.signpost.file) : undefined))
const setting = ref(false)
onMounted(() => attempt(async () => (places.value = await signposts.places(props.signpost.id))))

async function turn() {
  if (await attempt(() => signposts.turn(props.signpost, props.to.id))) emit('close')
}
const later = (at: string) => timetable.set({ kind: 'signpost', signpost: props.signpost.id, file: props.to.id }, at)
</script>

<template>
  <VDialog :model-value="true" max-width="600" aria-labelledby="turn-head" @update:model-value="emit('close')">
    <div class="dialog">
      <h2 id="turn-head">Turn “{{ signpost.title }}”</h2>
      <div class="turn">
        <div class="side" :class="{ none: !from }">
          <span class="hint">Points at</span>
          <template v-if="from"
            ><FilePicture :file="from" class="picture" /><b>{{ from.title }}</b
            ><span class="hint">{{ from.tag }}, {{ shortDate(from.changed) }}</span></template
          >
          <p v-else class="hint">Nothing</p>
        </div>
        <div class="side to">
          <span class="hint">Will point at</span>
          <FilePicture :file="to" class="picture" /><b>{{ to.title }}</b
          ><span class="hint">{{ to.tag }}, {{ shortDate(to.changed) }}</span>
        </div>
      </div>
      <section class="what">
        <h3>{{ places?.length ? `${counted(places.length, 'place')} and its address will follow` : 'Its address will follow' }}</h3>
        <p v-if="places && !places.length" class="hint">
          No page leads to this signpost yet. Whoever was given /to/{{ signpost.name }} gets the new file.
        </p>
        <PlaceList v-else-if="places" :uses="places" class="list" />
      </section>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <SetTime v-if="setting" :label="`Turn “${signpost.title}” at`" :act="later" @done="emit('close')" @close="setting = false" />
      <div v-else class="acts">
        <VBtn v-focus variant="flat" @click="turn">Turn it now</VBtn>
        <VBtn variant="outlined" @click="setting = true">At a set time…</VBtn>
        <VBtn @click="emit('close')">Leave it as it is</VBtn>
      </div>
    </div>
  </VDialog>
</template>

<style scoped>
.turn {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  width: 100%;
}
.side {
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr);
  gap: 2px 10px;
  align-content: start;
  padding: 10px;
  border: 1px solid var(--line);
}
.side > .hint:first-child {
  grid-column: 1 / -1;
}
.side.to {
  border-left: 3px solid var(--water);
  background: #f3f8f7;
}
.picture {
  grid-row: 2 / 4;
  width: 56px;
  height: 72px;
}
.side b {
  align-self: end;
  overflow-wrap: anywhere;
  line-height: 1.3;
}
.what {
  width: 100%;
}
.list {
  max-height: 200px;
  overflow: auto;
}
h3 {
  margin: 0 0 2px;
  font-size: 13px;
  font-weight: 650;
}
@media (max-width: 560px) {
  .turn {
    grid-template-columns: 1fr;
  }
}
</style>
