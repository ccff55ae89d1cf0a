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
  <li v-drop="target" :class="{ chosen, over }">
    <VBtn color="ink" :aria-pressed="chosen" @click="emit('choose')">
      <span class="arm"
        ><b>{{ signpost.title }}</b></span
      >
      <code>/to/{{ signpost.name }}</code>
      <span class="points" :class="{ missing }">
        <template v-if="file"
          ><TypeTag :tag="file.tag" :family="file.family" /> <span class="title">{{ file.title }}</span></template
        >
        <span v-if="missing">{{ !file ? 'Points at nothing' : file.deleted ? 'in the bin' : 'withdrawn' }}</span>
      </span>
      <span class="count"
        >{{ signpost.uses ? counted(signpost.uses, 'place') : 'no place yet'
        }}<template v-if="timetable.forSignpost(signpost.id)">, turns by itself</template></span
      >
    </VBtn>
    <span v-if="over" class="as-next">will point there</span>
  </li>
</template>

<style scoped>
li {
  position: relative;
  border-bottom: 1px solid var(--line);
  background: #fff;
}
li.chosen {
  box-shadow: inset 3px 0 var(--water);
  background: #edf3f2;
}
li.over {
  background: #cfe2df;
  box-shadow: inset 0 0 0 2px var(--water);
}
.v-btn {
  width: 100%;
  padding: 9px 14px;
}
.v-btn :deep(.v-btn__content) {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 3px 16px;
  text-align: left;
}
.arm {
  overflow-wrap: anywhere;
}
code {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: var(--soft);
  align-self: center;
}
.points {
  display: flex;
  gap: 8px;
  align-items: center;
  min-width: 0;
}
.title {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.missing {
  color: #9a4420;
  font-weight: 600;
}
.count {
  color: var(--soft);
}
.as-next {
  position: absolute;
  right: 8px;
  top: 8px;
  padding: 0 8px;
  line-height: 20px;
  color: #fff;
  background: var(--water);
  border-radius: 3px;
  font-size: 12px;
  pointer-events: none;
}
@container (max-width: 560px) {
  .v-btn :deep(.v-btn__content) {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
