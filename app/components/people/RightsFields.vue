<script setup lang="ts">
import {
  FILE_RIGHTS,
  FILE_RIGHT_WORDS,
  SITE_RIGHTS,
  SITE_RIGHT_WORDS,
  type FileRight,
  type Holder,
  type Rights,
} from '~~/core/rights/rights'
import { READY_SETS, readyRights, readySetOf, type ReadyKey } from '~~/core/rights/ready'

/** What somebody may do: a ready set, here or there in the library, or each right by itself. */
const holder = defineModel<Holder>({ required: true })
const folders = useFolders()

type Kind = ReadyKey | 'owner' | 'own'
const kindOf = (rights: Holder): Kind => (rights === null ? 'owner' : (readySetOf(rights)?.key ?? 'own'))
/** what was chosen: a set whose rights are changed one by one is one's own from then on */
const kind = ref<Kind>(kindOf(holder.value))
watch(holder, now => kind.value !== 'own' && (kind.value = kindOf(now)))

const KINDS = [
  ...READY_SETS.map(({ key, title, words }) => ({ value: key as Kind, title, props: { subtitle: words } })),
  { value: 'own' as Kind, title: 'Of your own choice', props: { subtitle: 'Each right by itself, folder by folder.' } },
  { value: 'owner' as Kind, title: 'Owner', props: { subtitle: 'Everything, inviting and letting go others too.' } },
]
const places = computed(() => [
  { value: null, title: 'The whole library' },
  ...folders.tree.all.map(({ id }) => ({
    value: id,
    title: folders.tree
      .pathTo(id)
      .map(({ name }) => name)
      .join(' / '),
  })),
])
const only = computed(() => places.value.slice(1))

const chosenFolders = computed(() => (holder.value?.files ?? []).flatMap(({ folder }) => folder ?? []))
function choose(chosen: Kind) {
  kind.value = chosen
  const where = chosenFolders.value.length ? chosenFolders.value : null
  if (chosen === 'owner') holder.value = null
  else if (chosen === 'own') holder.value ??= { files: [{ folder: null, may: ['see'] }], site: [] }
  else holder.value = readyRights(chosen, chosen === 'everything' ? null : where)
}
/** One folder is what is mostly wanted: its list would lie over what comes next. */
const listOpen = ref(false)
function setFolders(ids: string[]) {
  listOpen.value = false
  holder.value = readyRights(kind.value as ReadyKey, ids.length ? ids : null)
}

const change = (changed: Partial<Rights>) => (holder.value = { ...holder.value!, ...changed })
const setGrant = (index: number, changed: Partial<Rights['files'][number]>) =>
  change({ files: holder.value!.files.map((grant, at) => (at === index ? { ...grant, ...changed } : grant)) })
/** Nothing can be done with what is not seen. */
const withSight = (may: FileRight[]) => FILE_RIGHTS.filter(right => right === 'see' || may.includes(right))
const RIGHTS = FILE_RIGHTS.filter(right => right !== 'see').map(value => ({ value, title: FILE_RIGHT_WORDS[value] }))
</script>

<template>
  <div class="rights">
    <VSelect label="What they may do" :items="KINDS" :model-value="kind" @update:model-value="choose" />
    <VAutocomplete
      v-if="holder && kind !== 'own' && kind !== 'everything'"
      v-model:menu="listOpen"
      label="Where in the library"
      :items="only"
      :model-value="chosenFolders"
      multiple
      chips
      closable-chips
      placeholder="The whole library"
      persistent-placeholder
      @update:model-value="setFolders"
    />
    <template v-if="holder && kind === 'own'">
      <fieldset v-for="(grant, index) in holder.files" :key="index">
        <legend class="tr-spoken">Files, place {{ index + 1 }}</legend>
        <VAutocomplete
          label="Sees the files of"
          :items="places"
          :model-value="grant.folder"
          @update:model-value="setGrant(index, { folder: $event })"
        />
        <VSelect
          label="May also"
          :items="RIGHTS"
          :model-value="grant.may.filter(right => right !== 'see')"
          multiple
          chips
          placeholder="only look"
          persistent-placeholder
          @update:model-value="setGrant(index, { may: withSight($event) })"
        />
        <VBtn @click="change({ files: holder!.files.filter((_, at) => at !== index) })">Not these files</VBtn>
      </fieldset>
      <div>
        <VBtn variant="outlined" @click="change({ files: [...holder!.files, { folder: null, may: ['see'] }] })"
          >Files of another place</VBtn
        >
      </div>
      <fieldset class="site">
        <legend>And on the site</legend>
        <VCheckbox
          v-for="right in SITE_RIGHTS"
          :key="right"
          :label="SITE_RIGHT_WORDS[right]"
          :value="right"
          :model-value="holder.site"
          @update:model-value="change({ site: $event ?? [] })"
        />
      </fieldset>
    </template>
    <p v-if="kind === 'owner'" class="hint">An owner can also let you go.</p>
  </div>
</template>

<style scoped>
.rights,
fieldset {
  display: grid;
  gap: 10px;
}
fieldset {
  margin: 0;
  padding: 10px 0 0;
  border: 0;
  border-top: 1px solid var(--line);
  justify-items: start;
}
fieldset > .v-input {
  width: 100%;
}
.site {
  gap: 2px;
}
legend {
  font-weight: 600;
  padding: 0 8px 0 0;
}
</style>
