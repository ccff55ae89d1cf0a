<script setup lang="ts">
import type { EditionItem, FileItem } from '~~/core/files/fileItem'
import { formatSize } from '~~/core/files/size'
import { wallTimeAt } from '~~/core/timetable/wallTime'

/** One edition of a file: when it came, who gets it, and what can be done with it. */
const props = defineProps<{ file: FileItem; edition: EditionItem }>()
const rights = useRights()
const editions = useEditions()
const timetable = useTimetable()
const session = useSession()
const { problem, attempt } = useAttempt()
const open = ref(false)
const renews = computed(() => rights.mayFile('renew', props.file))
const setting = ref(false)
const current = computed(() => props.edition.number === props.file.edition)
const planned = computed(() => {
  const item = timetable.forFile(props.file.id)
  return item?.act.kind === 'edition' && item.act.number === props.edition.number ? item : undefined
})
const address = computed(() => session.fullAddress(`/files/${props.file.handle}?edition=${props.edition.number}`))
const at = computed(() => ({ file: props.file, number: props.edition.number }))
const change = (changed: Parameters<typeof editions.change>[1]) => attempt(() => editions.change(at.value, changed))
const later = (time: string) => timetable.set({ kind: 'edition', file: props.file.id, number: props.edition.number }, time)

async function withdraw() {
  const was = planned.value
  if (!(await change({ withdrawn: true }))) return
  useNotices().say(`Edition ${props.edition.number} is withdrawn: visitors are told so.`, {
    action: { label: 'Undo', run: () => bringBack(was?.failed === null ? was.at : undefined) },
  })
}

/** @param live when it was to go live by itself: what is withdrawn is not */
async function bringBack(live: string | undefined) {
  if (!(await change({ withdrawn: false })) || !live) return
  await orSayWhy(() => later(wallTimeAt(new Date(live), session.site.timeZone)))
}
</script>

<template>
  <tr :class="{ current, open, marked: planned || problem }">
    <td>
      <VBtn color="ink" :aria-expanded="open" @click="open = !open">
        <b><span class="tr-spoken">Edition </span>{{ edition.number }}</b>
      </VBtn>
    </td>
    <td class="words">
      <span :title="edition.note"
        ><span :title="longDate(edition.created)">{{ shortDate(edition.created) }}</span
        ><template v-if="edition.note">: {{ edition.note }}</template></span
      >
      <code :title="edition.fileName">{{ edition.fileName }}, {{ formatSize(edition.size) }}</code>
    </td>
    <td class="state">
      <span v-if="edition.withdrawn" class="out">withdrawn</span>
      <span v-else-if="current" class="now">current</span>
      <VBtn
        v-else-if="edition.number > file.edition"
        variant="outlined"
        :aria-label="`Compare edition ${edition.number} with what visitors get`"
        @click="editions.look(file, edition.number)"
      >
        Compare…
      </VBtn>
      <VBtn v-else-if="renews" :aria-label="`Show this one: edition ${edition.number}`" @click="attempt(() => editions.showEarlier(at))">
        Show this one
      </VBtn>
    </td>
  </tr>
  <tr v-if="planned || problem || open">
    <td colspan="3">
      <TimeLine v-if="planned" :item="planned" words="Goes live" />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div v-if="open" class="more">
        <VTextField
          label="Note, for yourself"
          :readonly="!renews"
          maxlength="500"
          :model-value="edition.note"
          placeholder="What is new in it"
          @change="change({ note: $event.target.value })"
        />
        <p class="hint">
          Came in {{ longDate(edition.created) }}<template v-if="edition.by"> from {{ edition.by }}</template
          >.
        </p>
        <VCheckbox
          v-if="!edition.withdrawn"
          label="Anyone can have this edition, by its number"
          :readonly="!renews"
          :model-value="edition.pinned"
          @update:model-value="change({ pinned: !edition.pinned })"
        />
        <CopyLine v-if="edition.pinned && !edition.withdrawn" name="This edition, for ever" :address="address" />
        <SetTime
          v-if="setting"
          :label="`Edition ${edition.number} goes live at`"
          :act="later"
          @done="setting = false"
          @close="setting = false"
        />
        <div v-else-if="renews" class="acts">
          <VBtn v-if="!current && !edition.withdrawn" @click="setting = true">Live at a set time…</VBtn>
          <VBtn v-if="edition.withdrawn" variant="outlined" @click="change({ withdrawn: false })">Give it out again</VBtn>
          <VBtn
            v-else
            color="clay"
            :title="current ? 'Its buttons are no longer shown to visitors' : 'Nobody can have it any more'"
            @click="withdraw"
          >
            Withdraw it
          </VBtn>
        </div>
      </div>
    </td>
  </tr>
</template>

<style scoped>
tr.open > td,
tr.marked > td {
  border-bottom: 0 !important;
}
td {
  padding: 4px 0 !important;
}
td:first-child {
  width: 34px;
}
.state {
  width: 108px;
  text-align: right;
}
td:first-child > .v-btn {
  margin-left: -8px;
}
.words > * {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
code {
  color: var(--soft);
  font-size: 11.5px;
}
.now {
  padding: 0 8px;
  color: #3c6530;
  font-weight: 600;
}
.out {
  padding: 0 8px;
  color: #9a4420;
  font-weight: 600;
}
.more {
  display: grid;
  gap: 8px;
  padding: 2px 0 10px;
}
</style>
