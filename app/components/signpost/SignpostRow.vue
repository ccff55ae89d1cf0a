<script setup lang="ts">
import type { FileItem } from '~~/core/files/fileItem'
import type { SignpostItem } from '~~/core/signposts/signpostItem'

/** A signpost in the list; a file dropped on it is what it shall point at. */
const props = defineProps<{ signpost: SignpostItem; chosen: boolean }>()
const emit = defineEmits<{ choose: []; point: [file: FileItem] }>()
const library = useLibrary()
const timetable = useTimetable()
const uploads = useUploads()
const file = computed(() => (props.signpost.file ? library.known.get(props.signpost.file) : undefined))
const missing = computed(() => !file.value || !!file.value.deleted || file.value.withdrawn)

const { over, target } = useDropOn(true, async ({ things, files }) => {
  if (things) {
    const [dropped] = await library.meet(things.files.slice(0, 1))
    if (dropped) emit('point', dropped)
    return
  }
  await uploads.bring((await files) ?? [], null, item => emit('point', item))
})
</script>

<template>
  <tr v-drop="target" :class="{ chosen, over }" @click="emit('choose')">
    <td>
      <VBtn color="ink" :aria-pressed="chosen" @click.stop="emit('choose')">
        <b>{{ signpost.title }}</b>
        <code>/to/{{ signpost.name }}</code>
      </VBtn>
    </td>
    <td>
      <span class="points" :class="{ missing }">
        <template v-if="file"
          ><TypeTag :tag="file.tag" :family="file.family" /> <span class="title" :title="file.title">{{ file.title }}</span></template
        >
        <span v-if="missing">{{ !file ? 'Points at nothing' : file.deleted ? 'in the bin' : 'withdrawn' }}</span>
      </span>
    </td>
    <td class="count">
      {{ signpost.uses ? counted(signpost.uses, 'place') : 'no place yet' }}
      <span v-if="timetable.forSignpost(signpost.id)">turns by itself</span>
      <span v-if="over" class="as-next">will point there</span>
    </td>
  </tr>
</template>

<style scoped>
td {
  white-space: normal !important;
}
td:first-child {
  min-width: 120px;
}
tr.over > td {
  position: relative;
  background: #cfe2df;
  box-shadow:
    inset 0 2px var(--water),
    inset 0 -2px var(--water);
}
.v-btn {
  padding: 5px 8px 5px 0;
}
.v-btn :deep(.v-btn__content) {
  display: grid;
  gap: 1px;
  justify-items: start;
  text-align: left;
  white-space: normal;
  overflow-wrap: anywhere;
}
.v-btn:hover {
  background: none !important;
}
.v-btn:hover b {
  text-decoration: underline;
}
code {
  color: var(--soft);
}
.points {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: center;
  min-width: 0;
}
.title {
  overflow-wrap: anywhere;
}
.missing {
  color: #9a4420;
  font-weight: 600;
}
.count {
  color: var(--soft);
}
.count > span {
  display: block;
  font-size: 12.5px;
}
.count > .as-next {
  position: absolute;
  right: 8px;
  top: 8px;
  padding: 0 8px;
  line-height: 20px;
  color: #fff;
  background: var(--water);
  border-radius: 3px;
  font-size: 12px;
  white-space: nowrap;
  pointer-events: none;
}
</style>
