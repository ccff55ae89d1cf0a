<script setup lang="ts">
import type { OldAddress, OldAddressList } from '~~/core/oldAddresses/oldAddressItem'
import type { Target } from '~~/core/page/schema'
import { TARGET_ICONS } from '~/editor/targetIcons'

/** Addresses the site had before: where each leads, or could. */
defineProps<{ list: OldAddressList }>()
const emit = defineEmits<{ turn: [] }>()
const old = useOldAddresses()
const { problem, attempt } = useAttempt()
/** the one whose place is being looked for */
const finding = ref<string[]>([])
const HEADERS = [
  { title: 'Old address', key: 'path' },
  { title: 'Leads to', key: 'target' },
  { title: 'Acts', key: 'acts' },
].map(header => ({ ...header, sortable: false }))

/** on the button that chooses where it leads */
const choiceWords = ({ suggestion, target }: OldAddress) => (suggestion || target ? 'Elsewhere…' : 'Choose…')
const find = ({ path }: OldAddress) => (finding.value = finding.value.includes(path) ? [] : [path])

async function lead(address: OldAddress, target: Target | null, title?: string) {
  finding.value = []
  await old.lead(address, target, title)
}
</script>

<template>
  <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  <VDataTableServer
    v-model:expanded="finding"
    :headers="HEADERS"
    :items="list.items"
    :items-length="list.total"
    :items-per-page="old.perPage"
    :page="old.page"
    item-value="path"
  >
    <template #no-data>
      {{ old.q ? 'No address has that in it.' : old.show === 'open' ? 'Every old address leads somewhere.' : 'None leads on yet.' }}
    </template>
    <template #[`header.acts`]><span class="tr-spoken">Acts</span></template>
    <template #[`item.path`]="{ item }">
      <code :title="item.path">{{ item.path }}</code>
      <span v-if="item.missed && !item.target" class="asked" :title="item.lastMissed ? `Last ${longDate(item.lastMissed)}` : ''"
        >asked for {{ item.missed === 1 ? 'once' : `${item.missed.toLocaleString()} times` }}, in vain</span
      >
    </template>
    <template #[`item.target`]="{ item }">
      <span v-if="item.target" class="leads"
        ><VIcon :icon="TARGET_ICONS[item.target.kind]" size="16" /> {{ item.title || 'gone, or not given out' }}</span
      >
      <VBtn
        v-else-if="item.suggestion"
        variant="outlined"
        @click="attempt(() => lead(item, item.suggestion!.target, item.suggestion!.title))"
      >
        Lead it to “{{ item.suggestion.title }}”
      </VBtn>
      <span v-else class="leads">nothing yet</span>
    </template>
    <template #[`item.acts`]="{ item }">
      <div class="acts">
        <VBtn :aria-label="`${choiceWords(item)} for ${item.path}`" @click="find(item)">{{ choiceWords(item) }}</VBtn>
        <VBtn v-if="item.target" color="soft" :aria-label="`Nowhere: ${item.path}`" @click="attempt(() => lead(item, null))">
          Nowhere
        </VBtn>
        <VBtn
          v-else
          color="soft"
          :aria-label="`Forget ${item.path}`"
          title="Who asks for it is told that nothing is there"
          @click="attempt(() => old.forget(item))"
        >
          Forget
        </VBtn>
      </div>
    </template>
    <template #expanded-row="{ columns, item }">
      <tr>
        <td :colspan="columns.length">
          <FileFinder
            class="pop"
            :label="`Find what took the place of ${item.path}`"
            anywhere
            @choose="attempt(() => lead(item, { kind: 'file', id: $event.id }, $event.title))"
            @lead="(target, title) => attempt(() => lead(item, target, title))"
            @close="finding = []"
          />
        </td>
      </tr>
    </template>
    <template #bottom><PageTurner v-model="old.page" :total="list.total" :per-page="old.perPage" @turn="emit('turn')" /></template>
  </VDataTableServer>
</template>

<style scoped>
.problem {
  padding: 10px 12px;
}
:deep(td) {
  white-space: normal !important;
}
code {
  overflow-wrap: anywhere;
}
.asked {
  display: block;
  color: #9a4420;
  font-size: 12.5px;
}
.leads {
  color: var(--soft);
}
.acts {
  justify-content: flex-end;
  flex-wrap: nowrap;
}
.pop {
  width: 100%;
  max-width: 420px;
  padding: 0 0 8px;
  margin-left: auto;
}
</style>
