<script setup lang="ts">
import type { Use } from '~~/core/files/fileItem'
import type { Target } from '~~/core/page/schema'
import type { Named } from '~/stores/targets'

/** What stands in the way where a page shall go that others lead to: the places, and three ways on. */
const props = defineProps<{ page: { id: string; title: string }; uses: Use[]; /** such as "Take it offline" */ act: string }>()
const emit = defineEmits<{ close: []; /** nothing leads there any more, or it may go all the same */ go: [despite: boolean] }>()
const targets = useTargets()
const { problem, attempt } = useAttempt()
const finding = ref(false)
const from = computed<Named>(() => ({ target: { kind: 'page', id: props.page.id }, title: props.page.title }))

const settle = (to: Named | null) =>
  attempt(async () => {
    await targets.replace(from.value, to)
    emit('go', false)
  })
const lead = (target: Target, title: string) => settle({ target, title })
</script>

<template>
  <VDialog :model-value="true" max-width="560" aria-labelledby="led-to-head" @update:model-value="emit('close')">
    <div class="dialog">
      <h2 id="led-to-head">{{ counted(uses.length, 'place') }} {{ uses.length === 1 ? 'leads' : 'lead' }} to “{{ page.title }}”</h2>
      <PlaceList :uses="uses" class="list" />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="ways">
        <VBtn v-focus class="way" @click="finding = !finding">
          <b>Lead {{ uses.length === 1 ? 'it' : 'them' }} somewhere else</b
          ><span>To another page, a file, a signpost or an address. Live pages change at once.</span>
        </VBtn>
        <FileFinder
          v-if="finding"
          label="Find what they lead to instead"
          anywhere
          @choose="lead({ kind: 'file', id: $event.id }, $event.title)"
          @lead="lead"
          @close="finding = false"
        />
        <VBtn class="way" @click="settle(null)">
          <b>Take {{ uses.length === 1 ? 'it' : 'them' }} off</b
          ><span>Buttons go, links become plain words. Live pages change at once.</span>
        </VBtn>
        <VBtn color="clay" class="way" @click="emit('go', true)">
          <b>{{ act }} all the same</b><span>The places stay in the drafts, marked; visitors no longer see them.</span>
        </VBtn>
      </div>
      <VBtn @click="emit('close')">Leave it as it is</VBtn>
    </div>
  </VDialog>
</template>

<style scoped>
.list {
  max-height: 200px;
  overflow: auto;
}
</style>
