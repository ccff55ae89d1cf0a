<script setup lang="ts">
import type { OldAddress } from '~~/core/oldAddresses/oldAddressItem'
import type { Target } from '~~/core/page/schema'
import { TARGET_ICONS } from '~/editor/targetIcons'

/** One address the site had before: where it leads, or could. */
const props = defineProps<{ address: OldAddress }>()
const old = useOldAddresses()
const { problem, attempt } = useAttempt()
const finding = ref(false)

async function lead(target: Target | null, title?: string) {
  finding.value = false
  await attempt(() => old.lead(props.address, target, title))
}
/** on the button that chooses where it leads */
const choose = computed(() => (props.address.suggestion || props.address.target ? 'Elsewhere…' : 'Choose…'))
</script>

<template>
  <li>
    <div class="what">
      <code :title="address.path">{{ address.path }}</code>
      <span v-if="address.missed && !address.target" class="asked" :title="address.lastMissed ? `Last ${longDate(address.lastMissed)}` : ''"
        >asked for {{ address.missed === 1 ? 'once' : `${address.missed.toLocaleString()} times` }}, in vain</span
      >
      <span v-if="address.target" class="leads"
        ><VIcon :icon="TARGET_ICONS[address.target.kind]" size="16" /> {{ address.title || 'gone, or not given out' }}</span
      >
    </div>
    <div class="acts">
      <VBtn v-if="address.suggestion" variant="outlined" @click="lead(address.suggestion.target, address.suggestion.title)">
        Lead it to “{{ address.suggestion.title }}”
      </VBtn>
      <VBtn :aria-label="`${choose} for ${address.path}`" @click="finding = !finding">
        {{ choose }}
      </VBtn>
      <VBtn v-if="address.target" color="soft" :aria-label="`Nowhere: ${address.path}`" @click="lead(null)"> Nowhere </VBtn>
      <VBtn
        v-else
        color="soft"
        :aria-label="`Forget ${address.path}`"
        title="Who asks for it is told that nothing is there"
        @click="attempt(() => old.forget(address))"
      >
        Forget
      </VBtn>
    </div>
    <FileFinder
      v-if="finding"
      class="pop"
      :label="`Find what took the place of ${address.path}`"
      anywhere
      @choose="lead({ kind: 'file', id: $event.id }, $event.title)"
      @lead="lead"
      @close="finding = false"
    />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </li>
</template>

<style scoped>
li {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 14px;
  align-items: center;
  padding: 5px 16px;
  border-bottom: 1px solid var(--line);
  background: #fff;
}
code {
  overflow-wrap: anywhere;
}
.what {
  display: grid;
  gap: 1px;
  min-width: 0;
}
.asked {
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
  grid-column: 1 / -1;
  padding: 0;
  width: 100%;
  max-width: 420px;
  justify-self: end;
}
.problem {
  grid-column: 1 / -1;
}
@container (max-width: 560px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
  .acts {
    justify-content: flex-start;
    flex-wrap: wrap;
    margin-left: -8px;
  }
}
</style>
