<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { formatSize } from '~~/core/files/size'
import type { JobItem } from '~~/core/jobs/jobItem'
import type { UploadEntry } from '~/stores/uploads'
import type { DropTarget } from '~/composables/carried'

const uploads = useUploads()
const tray = useTray()
const jobs = useJobs()
const placer = usePlacer()
const listing = useListing()
const folders = useFolders()
const selection = useSelection()
const arrivals = useArrivals()
onMounted(() => selection.attempt(arrivals.load))

/** Those that wait their turn are only counted. */
const shown = computed(() => uploads.active.filter(entry => entry.state !== 'queued'))
const queued = computed(() => uploads.active.length - shown.value.length)
const shownJobs = computed(() => jobs.items.filter(job => job.state === 'running' || job.state === 'failed'))
const idle = computed(() => !uploads.active.length && !tray.files.length && !shownJobs.value.length && !arrivals.waiting.length)
const all = computed(() => ({ files: tray.files.map(file => file.id), folders: [] }))

const share = (entry: UploadEntry) => (entry.size ? Math.floor((100 * entry.sent) / entry.size) : 100)
function words(entry: UploadEntry): string {
  switch (entry.state) {
    case 'failed':
      return entry.error
    case 'paused':
      return `Paused at ${share(entry)} %`
    case 'retrying':
      return 'Connection lost, trying again…'
    case 'left over':
      return `${share(entry)} % is here. Choose the file again to go on.`
    default: {
      const left = entry.speed ? roughTime((entry.size - entry.sent) / entry.speed) : ''
      return `${share(entry)} % of ${formatSize(entry.size)}${entry.speed ? `, ${formatSize(entry.speed)}/s` : ''}${left && `, ${left} left`}`
    }
  }
}

const shareOf = (job: JobItem) => (job.total ? Math.floor((100 * job.done) / job.total) : 0)
function jobWords(job: JobItem): string {
  if (job.state === 'failed') return job.error ?? ''
  if (job.unit === 'files') return `Unpacking: ${job.done.toLocaleString()} of ${job.total?.toLocaleString() ?? '…'} files`
  return `Fetching: ${formatSize(job.done)}${job.total ? ` of ${formatSize(job.total)}` : ''}`
}

async function choose() {
  uploads.add(
    (await chooseFiles({ multiple: true })).map(file => ({ file, path: file.name })),
    { folder: listing.folder },
  )
}

async function moveHere() {
  await selection.attempt(() => selection.move(all.value, listing.folder))
}

/** Files dragged to the trough are picked up. */
const pickUp: DropTarget = {
  takes: ({ things, outside }) => !!things?.files.length || outside === 'things',
  drop: ({ things }) => things?.files.length && selection.attempt(() => selection.pickUp(things)),
}
</script>

<template>
  <section v-drop="pickUp" class="trough" :class="{ idle }" aria-label="The trough">
    <h2 class="name">Trough</h2>
    <ul>
      <li v-for="entry in shown" :key="entry.id" class="upload" :class="entry.state.replace(' ', '-')">
        <span class="words"
          ><b :title="entry.name">{{ entry.name }}</b
          ><span :title="words(entry)">{{ words(entry) }}</span></span
        >
        <span class="acts">
          <VBtn
            v-if="entry.state === 'sending' || entry.state === 'retrying'"
            :aria-label="`Pause ${entry.name}`"
            @click="uploads.pause(entry)"
          >
            Pause
          </VBtn>
          <VBtn v-if="entry.state === 'paused'" :aria-label="`Resume ${entry.name}`" @click="uploads.resume(entry)"> Resume </VBtn>
          <VBtn v-if="entry.state === 'failed'" :aria-label="`Try again: ${entry.name}`" @click="uploads.resume(entry)"> Try again </VBtn>
          <VBtn v-if="entry.state === 'left over'" @click="choose">Choose…</VBtn>
          <VBtn :aria-label="`Cancel ${entry.name}`" @click="uploads.cancel(entry)">Cancel</VBtn>
        </span>
        <VProgressLinear :model-value="share(entry)" absolute location="bottom" height="3" :aria-label="entry.name" />
      </li>
      <li v-if="queued" class="queued">
        {{ counted(queued, 'more file') }} waiting<VBtn @click="uploads.cancelQueued()">Cancel those</VBtn>
      </li>
      <li v-for="job in shownJobs" :key="job.id" class="upload" :class="job.state">
        <span class="words"
          ><b :title="job.name">{{ job.name }}</b
          ><span :title="jobWords(job)">{{ jobWords(job) }}</span></span
        >
        <span class="acts">
          <VBtn v-if="job.extra.host" @click="selection.attempt(() => jobs.allowHost(job, listing.folder))"> Allow this host </VBtn>
          <VBtn :aria-label="job.state === 'running' ? `Stop ${job.name}` : `Put away ${job.name}`" @click="jobs.stop(job.id)">
            {{ job.state === 'running' ? 'Stop' : 'Put away' }}
          </VBtn>
        </span>
        <VProgressLinear
          v-if="job.state === 'running'"
          :model-value="shareOf(job)"
          absolute
          location="bottom"
          height="3"
          :aria-label="job.name"
        />
      </li>
      <ArrivalChip v-for="arrival in arrivals.waiting" :key="arrival.id" :arrival="arrival" />
      <li v-if="arrivals.more" class="queued">
        <NuxtLink to="/desk/letterbox">{{ counted(arrivals.more, 'more') }} came by the letterbox</NuxtLink>
      </li>
      <li
        v-for="file in tray.files"
        :key="file.id"
        v-drag="() => ({ carried: { things: { files: [file.id], folders: [] } } })"
        class="file"
      >
        <TypeTag :tag="file.tag" :family="file.family" />
        <NuxtLink :to="`/desk/files/${file.id}`" class="title" draggable="false" :title="file.title">{{ file.title }}</NuxtLink>
        <VBtn v-if="placer.current" :aria-label="`Place ${file.title} on the page`" @click="placer.current.place(file)"> Place </VBtn>
        <VBtn :aria-label="`Put ${file.title} down`" title="Put down" @click="tray.putDown(file.id)">
          <VIcon :icon="mdiClose" size="14" />
        </VBtn>
      </li>
    </ul>
    <p v-if="idle" class="hint-line">
      Files on their way, files visitors handed in, and files you picked up, wait here to be dragged onto a page or into a folder.
    </p>
    <div v-if="tray.files.length" class="for-all">
      <VBtn :title="`Move them to ${folders.nameOf(listing.folder)}`" @click="moveHere">Move here</VBtn>
      <VBtn v-if="tray.files.length > 1" @click="selection.choose(all)"> Choose all {{ tray.files.length }} </VBtn>
      <VBtn v-if="tray.files.length > 1" color="soft" @click="tray.clear()">Put all down</VBtn>
    </div>
    <JobReport />
  </section>
</template>

<style scoped>
.trough {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 46px;
  padding: 0 12px;
  background: linear-gradient(#b9c7c4, #cdd8d5 7px, #dce4e2);
  border-top: 1px solid #8e9e9a;
}
.name {
  font-size: 13px;
  font-weight: 600;
  margin: 0;
}
ul {
  display: flex;
  gap: 8px;
  list-style: none;
  margin: 0;
  padding: 6px 0;
  overflow-x: auto;
  flex: 1;
  min-width: 0;
}
li {
  position: relative;
  display: flex;
  align-items: center;
  gap: 8px;
  flex: none;
  height: 36px;
  padding: 0 4px 0 9px;
  background: #fff;
  border: 1px solid #9faeaa;
  border-radius: 4px;
  overflow: hidden;
}
.file {
  cursor: grab;
}
.title {
  max-width: 170px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: var(--ink);
  text-decoration: none;
}
.title:hover {
  text-decoration: underline;
}
.upload {
  min-width: 260px;
}
.words {
  display: grid;
  line-height: 1.25;
  max-width: 300px;
  flex: 1;
  min-width: 0;
}
.words b {
  font-weight: 600;
}
.words b,
.words span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 12px;
}
.failed {
  border-color: var(--clay);
}
.failed .words {
  max-width: 420px;
}
.failed .words span {
  color: #9a4420;
}
.queued {
  color: var(--soft);
  background: #f5f8f7;
}
.acts,
.for-all {
  display: flex;
  flex: none;
}
.hint-line {
  color: #3f4c49;
  flex: 100 1 auto;
}
@media (max-width: 799px) {
  .trough.idle {
    display: none;
  }
  .trough:has(.file) {
    flex-wrap: wrap;
    gap: 0 4px;
    padding-top: 6px;
  }
  .trough:has(.file) ul {
    order: 1;
    flex-basis: 100%;
    scrollbar-width: none;
  }
  .for-all {
    margin-left: auto;
  }
  .trough li {
    max-width: calc(100vw - 84px);
  }
  .trough .failed {
    height: auto;
    padding-block: 4px;
    flex-wrap: wrap;
    gap: 0;
  }
  .failed .words {
    flex-basis: 100%;
  }
  .failed .words span {
    white-space: normal;
  }
  .failed .plain {
    padding-left: 0;
  }
}
</style>
