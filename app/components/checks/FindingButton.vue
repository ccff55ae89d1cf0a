<script setup lang="ts">
import { buttonInner } from '~~/core/page/button'
import type { Finding } from '~~/core/walk/finding'

/** What a finding is about, as visitors see it: the button in its look and on its background, or the words of a link. */
const props = defineProps<{ finding: Finding }>()
const worn = useWorn(() => ({
  look: props.finding.drawn?.look ?? '',
  own: props.finding.drawn?.own,
  placement: props.finding.placement ?? '',
}))
const inner = computed(() =>
  buttonInner({ label: props.finding.label || 'Download', note: '', locked: false, spoken: '' }, worn.appearance.value),
)
</script>

<template>
  <span v-if="finding.drawn" class="drawn tr-page" :class="`tr-tone-${finding.drawn.tone}`">
    <component :is="'style'" v-if="worn.ownCss.value">{{ worn.ownCss.value }}</component>
    <!-- Drawn by the renderer's own function, which escapes what is written in it. -->
    <!-- eslint-disable-next-line vue/no-v-html -->
    <span class="tr-button" :class="worn.className.value" v-html="inner" />
  </span>
  <span v-else class="drawn tr-page"
    ><span :class="{ 'tr-link': finding.placement }">{{ finding.label || 'without words' }}</span></span
  >
</template>

<style scoped>
.drawn {
  display: grid;
  align-items: center;
  justify-items: center;
  min-height: 46px;
  padding: 6px 8px;
  border: 1px solid var(--line);
  background: var(--paper);
  container-type: normal;
  overflow: hidden;
  overflow-wrap: anywhere;
  font-size: 13px;
  line-height: 1.3;
  text-align: center;
}
.drawn .tr-button {
  zoom: 0.68;
  max-width: 240px;
}
</style>
