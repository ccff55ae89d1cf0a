<script setup lang="ts">
import { gateOf } from '~~/core/gate/standing'
import { nearestSaid, type Said } from '~~/core/see/mayBeSeen'
import { MARKS, folderChangeSchema, type FolderChange, type FolderItem, type Mark } from '~~/core/folders/folderItem'

/** A folder's name, mark, description and order; or a new folder. */
const props = defineProps<{ folder?: FolderItem }>()
const emit = defineEmits<{ close: []; remove: []; inside: [] }>()
const rights = useRights()
const folders = useFolders()
const selection = useSelection()
const listing = useListing()
const session = useSession()
const { fields, field, submit, problem, busy, leave } = useForm({
  schema: folderChangeSchema.required(),
  begin: () => ({
    name: props.folder?.name ?? '',
    mark: props.folder?.mark ?? (null as Mark | null),
    description: props.folder?.description ?? '',
    ownOrder: props.folder?.ownOrder ?? false,
    see: props.folder?.see ?? (null as Said),
    found: props.folder?.found ?? (null as Said),
    gate: props.folder?.gate ?? (null as string | null),
  }),
  send: async given => {
    if (props.folder) await folders.change(props.folder.id, changedOf(props.folder, given))
    else {
      const { name, ...rest } = given
      const made = await folders.create(name, listing.folder)
      const said = changedOf(made, rest)
      if (Object.keys(said).length) await folders.change(made.id, said)
    }
    await useLibrary().refresh()
    emit('close')
  },
})
/** What differs from how it is: the rest may be for others to say. */
const changedOf = (folder: FolderItem, given: FolderChange): FolderChange =>
  Object.fromEntries(Object.entries(given).filter(([key, value]) => value !== folder[key as keyof FolderItem]))
const renames = computed(() => !props.folder || rights.mayFolder('edit', props.folder.id))
/** What holds for it where nothing is said of it. */
const above = computed(() => {
  const parent = props.folder ? props.folder.parent : listing.folder
  return {
    see: nearestSaid(null, parent, folders.tree, ({ see }) => see, session.site.see),
    found: nearestSaid(null, parent, folders.tree, ({ found }) => found, false),
    gate: gateOf({ gate: null, folder: parent }, folders.tree),
  }
})
</script>

<template>
  <VDialog :model-value="true" aria-labelledby="folder-head" @update:model-value="leave(() => emit('close'))">
    <VForm class="dialog" @submit.prevent="submit">
      <h2 id="folder-head">{{ folder ? `“${folder.name}”` : `New folder in ${folders.nameOf(listing.folder)}` }}</h2>
      <VTextField v-focus v-bind="field('name')" label="Name" class="wide" :readonly="!renames" maxlength="120" />
      <VRadioGroup v-model="fields.mark" label="Mark" inline class="pills">
        <VRadio v-for="mark in [null, ...MARKS]" :key="mark ?? 'none'" :value="mark">
          <template #label><i :class="mark ?? 'no-mark'" />{{ mark ?? 'none' }}</template>
        </VRadio>
      </VRadioGroup>
      <VTextarea v-bind="field('description')" label="Description" class="wide" rows="2" maxlength="2000" />
      <VCheckbox v-model="fields.ownOrder" label="Keep my own order: drag files, or move them with Alt and the arrow keys" />
      <SaidSelect
        v-if="rights.may('publish')"
        v-model="fields.see"
        label="Before visitors take a file of it"
        yes="They may look at what is in it"
        no="They do not see what is in it"
        :above="above.see"
      />
      <SaidSelect
        v-if="rights.may('publish')"
        v-model="fields.found"
        label="What visitors find when they search"
        yes="All files of it"
        no="What stands on live pages"
        :above="above.found"
      />
      <GateSelect
        v-if="rights.may('gates')"
        v-model="fields.gate"
        label="Who may have what is in it"
        :title="fields.name || 'New folder'"
        :above="above.gate"
      />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <VBtn type="submit" variant="flat" :loading="busy">{{ folder ? 'Save' : 'Make the folder' }}</VBtn>
        <VBtn @click="emit('close')">Cancel</VBtn>
        <VBtn v-if="folder && rights.mayIn('put', folder.id)" @click="emit('inside')">New folder in it…</VBtn>
        <VBtn
          v-if="folder"
          title="Files in their folders, with all that is said of them and checksums (BagIt)"
          @click="selection.attempt(() => selection.downloadBag(folder!.id))"
        >
          Download as a bag
        </VBtn>
        <VBtn v-if="folder && rights.mayFolder('delete', folder.id)" color="clay" @click="emit('remove')">Delete the folder…</VBtn>
      </div>
    </VForm>
  </VDialog>
</template>

<style scoped>
.wide {
  width: 100%;
}
i {
  display: inline-block;
  margin-right: 7px;
  width: 7px;
  height: 16px;
  border-radius: 1px;
}
i.no-mark {
  background: #9dada9;
}
i.water {
  background: var(--water);
}
i.clay {
  background: var(--clay);
}
i.straw {
  background: var(--straw);
}
i.moss {
  background: var(--moss);
}
</style>
