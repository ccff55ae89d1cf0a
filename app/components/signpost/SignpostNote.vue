<script setup lang="ts">
import { opensInBrowser } from '~~/core/files/mediaType'
import type { FileItem, Use } from '~~/core/files/fileItem'
import { signpostChangeSchema, type SignpostItem } from '~~/core/signposts/signpostItem'

/** The particulars of one signpost, in the margin. */
const props = defineProps<{ signpost: SignpostItem }>()
const emit = defineEmits<{ point: [file: FileItem]; gone: [] }>()
const signposts = useSignposts()
const timetable = useTimetable()
const library = useLibrary()
const session = useSession()
const { problem, attempt } = useAttempt()

const file = computed(() => (props.signpost.file ? library.known.get(props.signpost.file) : undefined))
const fault = computed(() =>
  !file.value
    ? 'Visitors are told that nothing is here just now, and do not see its buttons.'
    : file.value.deleted
      ? `“${file.value.title}” is in the bin.`
      : file.value.withdrawn
        ? `“${file.value.title}” was withdrawn.`
        : '',
)
const places = ref<Use[]>([])
watch(
  () => [props.signpost.id, props.signpost.uses, library.changes],
  (_now, _before, onCleanup) => {
    let late = false
    onCleanup(() => (late = true))
    return attempt(async () => {
      const found = await signposts.places(props.signpost.id)
      if (!late) places.value = found
    })
  },
  { immediate: true },
)

const finding = ref(false)
const takingDown = ref(false)
/** what leads to it is led elsewhere */
const replacing = ref(false)
const naming = ref(false)
watch(
  () => props.signpost.id,
  () => (finding.value = naming.value = takingDown.value = false),
)

const valueOf = (event: Event) => event.target as HTMLInputElement
async function rename(event: Event) {
  const field = valueOf(event)
  if (!(await attempt(() => signposts.change(props.signpost.id, { title: field.value })))) field.value = props.signpost.title
}
const {
  field,
  submit,
  problem: refusal,
  busy,
  reset,
} = useForm({
  schema: signpostChangeSchema.pick({ name: true }).required(),
  begin: () => ({ name: props.signpost.name }),
  send: async given => {
    await signposts.change(props.signpost.id, given)
    naming.value = false
  },
})
function choose(chosen: FileItem) {
  finding.value = false
  emit('point', chosen)
}
const planned = computed(() => timetable.forSignpost(props.signpost.id))
const plannedFile = computed(() =>
  planned.value?.act.kind === 'signpost' ? (library.known.get(planned.value.act.file)?.title ?? 'another file') : '',
)
watch(planned, item => item?.act.kind === 'signpost' && void attempt(() => library.meet([(item.act as { file: string }).file])), {
  immediate: true,
})
const path = computed(() => `/to/${props.signpost.name}`)
const links = computed(() => {
  const opens = file.value && opensInBrowser(file.value.mediaType)
  return [
    ...(opens ? [{ name: 'Opens what it points at', address: session.fullAddress(`${path.value}?open`) }] : []),
    { name: 'Saves what it points at', address: session.fullAddress(`${path.value}?save`) },
  ]
})
</script>

<template>
  <section class="note" :aria-label="`The signpost ${signpost.title}`">
    <VTextField :key="signpost.id" label="Name" maxlength="120" :model-value="signpost.title" @change="rename" />
    <div class="points">
      <span class="hint">Points at</span>
      <template v-if="file">
        <FilePicture :file="file" class="picture" />
        <NuxtLink :to="`/desk/files/${file.id}`" class="title">{{ file.title }}</NuxtLink>
      </template>
      <p v-if="fault" class="fault">{{ fault }}</p>
      <TimeLine v-if="planned" :item="planned" :words="`Turns to “${plannedFile}”`" class="wide" />
      <div class="ways">
        <VBtn variant="outlined" @click="finding = !finding">{{ file ? 'Turn it…' : 'Point it at a file…' }}</VBtn>
        <VBtn v-if="signpost.file" @click="attempt(() => signposts.turn(signpost, null))"> Point at nothing </VBtn>
      </div>
      <FileFinder
        v-if="finding"
        class="pop wide"
        label="Find what it shall point at"
        :except="signpost.file ? [signpost.file] : []"
        @choose="choose"
        @close="finding = false"
      />
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <section aria-labelledby="signpost-links">
      <h2 id="signpost-links">Its address</h2>
      <CopyLine v-for="link in links" :key="link.name" v-bind="link" />
      <CampaignAddress :address="links.at(-1)!.address" />
      <VForm v-if="naming" class="naming" @submit.prevent="submit" @keydown.esc.stop="naming = false">
        <VTextField v-focus v-bind="field('name')" label="New address" prefix="/to/" maxlength="80" />
        <p class="hint">The old address leads on to the new one.</p>
        <p v-if="refusal" class="problem" role="alert">{{ refusal }}</p>
        <div class="acts">
          <VBtn type="submit" variant="outlined" :loading="busy">Change</VBtn><VBtn @click="naming = false">Cancel</VBtn>
        </div>
      </VForm>
      <VBtn
        v-else
        @click="
          () => {
            reset()
            naming = true
          }
        "
      >
        Change the address…
      </VBtn>
    </section>
    <DownloadsCount dimension="signpost" :of="signpost.id" />
    <section aria-labelledby="signpost-uses">
      <h2 id="signpost-uses">{{ places.length ? `Used in ${counted(places.length, 'place')}` : 'Used nowhere yet' }}</h2>
      <template v-if="places.length">
        <PlaceList :uses="places" />
        <VBtn @click="replacing = true">Replace everywhere…</VBtn>
        <ReplaceDialog
          v-if="replacing"
          :from="{ target: { kind: 'signpost', id: signpost.id }, title: signpost.title }"
          @close="replacing = false"
        />
      </template>
      <p v-else class="hint">Choose it where a button or link leads, by typing its name. What leads to it follows for good.</p>
    </section>
    <VBtn color="clay" @click="takingDown = true">Take it down…</VBtn>
    <TakeDownDialog
      v-if="takingDown"
      :signpost="signpost"
      @close="takingDown = false"
      @gone="
        () => {
          takingDown = false
          emit('gone')
        }
      "
    />
  </section>
</template>

<style scoped>
.note {
  padding: 12px;
  background: #f5f8f7;
  display: grid;
  gap: 14px;
  align-content: start;
}
.note > .plain {
  justify-self: start;
}
.points {
  position: relative;
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr);
  gap: 4px 10px;
}
.points > .hint,
.points > .ways,
.fault,
.wide {
  grid-column: 1 / -1;
}
.picture {
  width: 56px;
  height: 72px;
}
.title {
  font-weight: 600;
  color: var(--ink);
  overflow-wrap: anywhere;
  line-height: 1.3;
}
.fault {
  color: #9a4420;
  font-weight: 600;
  line-height: 1.4;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.pop {
  padding: 0;
  width: auto;
  max-width: none;
}
section h2 {
  margin: 0 0 2px;
  font-size: 13px;
  font-weight: 650;
}
.naming {
  display: grid;
  gap: 6px;
  padding: 8px 0;
}
.with-path {
  display: flex;
  align-items: center;
  gap: 4px;
}
.with-path input {
  flex: 1;
}
</style>
