<script setup lang="ts">
import type { PageItem } from '~~/core/page/pageItem'
import { placementsOf } from '~~/core/page/targets'

/** Whether visitors see a page as it is drafted, and what on it leads nowhere. */
const props = defineProps<{ page: PageItem }>()

const open = usePage()
const uploads = useUploads()
/** Buttons whose files are still on their way: they lead somewhere as soon as those are in. */
const coming = computed(() =>
  open.current?.id === props.page.id && open.draft ? placementsOf(open.draft).filter(({ id }) => uploads.forPlacement(id)).length : 0,
)
const broken = computed(() => Math.max(0, props.page.broken - coming.value))
</script>

<template>
  <span class="state">
    <template v-if="!page.published && !page.waiting"><i class="mark none" />Nothing placed</template>
    <template v-else-if="!page.published"><i class="mark none" />Not live</template>
    <template v-else-if="page.waiting"><i class="mark waits" />Live, changes wait</template>
    <template v-else><i class="mark live" />Live since {{ shortDate(page.published) }}</template>
  </span>
  <span v-if="broken" class="broken">{{ counted(broken, 'place') }} {{ broken === 1 ? 'leads' : 'lead' }} nowhere</span>
</template>

<style scoped>
.state {
  white-space: nowrap;
}
.broken {
  grid-column: 1 / -1;
  color: #9a4420;
  font-size: 12.5px;
}
.mark {
  display: inline-block;
  width: 9px;
  height: 9px;
  margin-right: 7px;
  border-radius: 50%;
}
.mark.live {
  background: var(--moss);
}
.mark.waits {
  background: var(--straw);
  border: 1px solid #8a6a12;
}
.mark.none {
  border: 2px solid #7a8783;
}
</style>
