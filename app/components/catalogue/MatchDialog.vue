<script setup lang="ts">
import type { CatalogueItem } from '~~/core/catalogue/catalogue'
import type { Field } from '~~/core/catalogue/field'
import type { Matched } from '~~/core/catalogue/match'
import { isMany } from '~~/core/catalogue/field'
import { titleOf } from '~~/core/catalogue/values'

/** Which file goes to which entry: what the names say, and what is doubtful asked. */
const props = defineProps<{ catalogue: CatalogueItem; field: Field; matched: Matched[] }>()
const emit = defineEmits<{ close: [] }>()

const entries = useEntries()
const library = useLibrary()
const { problem, attempt } = useAttempt()
const busy = ref(false)
const given = reactive(new Map(props.matched.map(({ file, entry }) => [file, entry])))
const onlyDoubtful = ref(props.matched.some(({ sure }) => !sure) && props.matched.length > 12)
const shown = computed(() => (onlyDoubtful.value ? props.matched.filter(({ sure }) => !sure) : props.matched))
const doubtful = computed(() => props.matched.filter(({ sure }) => !sure).length)
const choices = computed(() => entries.items.map(({ id, values }) => ({ value: id, title: titleOf(values) })))
const placed = computed(() => [...given.values()].filter(Boolean).length)
/** Entries that would get more than one file where one has room. */
const doubled = computed(() => {
  if (isMany(props.field.kind)) return []
  const ids = [...given.values()].filter((id): id is string => !!id)
  return [...new Set(ids.filter((id, at) => ids.indexOf(id) !== at))].map(id => titleOf(entries.byId.get(id)?.values ?? {}))
})
const without = computed(() => {
  const got = new Set(given.values())
  return entries.items.filter(({ id, values }) => values[props.field.id] === undefined && !got.has(id)).length
})

async function put() {
  busy.value = true
  await attempt(async () => {
    const byEntry = new Map<string, string[]>()
    for (const [file, entry] of given) if (entry) byEntry.set(entry, [...(byEntry.get(entry) ?? []), file])
    await entries.change(
      [...byEntry].map(([id, files]) => {
        const before = entries.byId.get(id)?.values[props.field.id]
        const all = isMany(props.field.kind) ? [...new Set([...((before as string[] | undefined) ?? []), ...files])] : files.at(-1)!
        return { id, values: { [props.field.id]: all } }
      }),
    )
    useNotices().say(`${counted(byEntry.size, `${props.catalogue.one} has`, 'entries have')} “${props.field.name}” now.`, {
      tone: 'works',
      action: { label: 'Undo', run: entries.undo },
    })
    emit('close')
  })
  busy.value = false
}
</script>

<template>
  <VDialog :model-value="true" max-width="720" aria-labelledby="match-head" @update:model-value="emit('close')">
    <div class="dialog match">
      <h2 id="match-head">{{ counted(matched.length, 'file') }} for “{{ field.name }}”</h2>
      <p>
        Found by their names<template v-if="doubtful"
          >; {{ doubtful === 1 ? 'one is doubtful and marked' : `${doubtful} are doubtful and marked` }}</template
        >.
        {{ without ? `${counted(without, catalogue.one, 'entries')} would still have none.` : 'Then every entry has one.' }}
      </p>
      <VCheckbox v-if="doubtful && doubtful < matched.length" v-model="onlyDoubtful" label="Only the doubtful ones" />
      <div class="pairs">
        <VTable>
          <thead>
            <tr>
              <th scope="col">File</th>
              <th scope="col">Goes to</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="{ file, sure } in shown" :key="file" :class="{ doubtful: !sure }">
              <th scope="row">{{ library.known.get(file)?.fileName ?? 'A file' }}</th>
              <td>
                <VAutocomplete
                  :aria-label="`${library.known.get(file)?.fileName} goes to`"
                  :items="choices"
                  :model-value="given.get(file)"
                  clearable
                  placeholder="To none of them"
                  @update:model-value="given.set(file, $event ?? null)"
                />
              </td>
            </tr>
          </tbody>
        </VTable>
      </div>
      <p v-if="doubled.length" class="fault">Two files for {{ doubled.slice(0, 3).join(', ') }}: the last one stays.</p>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <VBtn v-focus variant="flat" :loading="busy" :disabled="!placed" @click="put">Put {{ counted(placed, 'file') }} in</VBtn>
        <VBtn @click="emit('close')">Leave them in the library</VBtn>
      </div>
    </div>
  </VDialog>
</template>

<style scoped>
.match {
  display: grid;
  gap: 10px;
}
.match > * {
  min-width: 0;
  width: 100%;
}
.pairs {
  max-height: 50vh;
  overflow: auto;
  border: 1px solid var(--line);
}
.pairs :deep(th[scope='row']) {
  font-weight: 500;
  overflow-wrap: anywhere;
}
.pairs :deep(td) {
  width: 50%;
  padding-block: 4px !important;
}
.doubtful :deep(th),
.doubtful > th {
  box-shadow: inset 3px 0 var(--straw);
}
.fault {
  color: #9a4420;
}
</style>
