<script setup lang="ts">
import type { ComparedEdition } from '~~/core/editions/comparison'
import { formatExactSize, formatSize } from '~~/core/files/size'

/** One of two editions that are held against each other; what differs from the other stands out. */
const props = defineProps<{ head: string; fileId: string; edition: ComparedEdition; other: ComparedEdition }>()
const facts = computed(() => {
  const of = ({ fileName, tag, size, facts: { pages, dated }, created }: ComparedEdition) =>
    [
      ['Name', fileName],
      ['Type', tag],
      ['Size', formatSize(size), formatExactSize(size)],
      ['Pages', pages === undefined ? '' : String(pages)],
      ['Dated', dated ? shortDate(dated) : ''],
      ['Came in', longDate(created)],
    ] as const
  const others = of(props.other)
  return of(props.edition)
    .map(([name, value, exact], index) => ({ name, value, exact, differs: value !== others[index]![1] && name !== 'Came in' }))
    .filter(({ value }, index) => value || others[index]![1])
})
</script>

<template>
  <section class="side">
    <h3>{{ head }}</h3>
    <div class="picture">
      <img
        v-if="edition.preview === 'ready'"
        :src="`/api/files/${fileId}/preview?edition=${edition.number}&v=${edition.sha256.slice(0, 8)}`"
        :alt="`First page of edition ${edition.number}`"
      />
      <p v-else class="hint">
        {{ edition.preview === 'waiting' ? 'Its first page is being drawn…' : `${edition.tag}: it has no picture` }}
      </p>
    </div>
    <dl>
      <template v-for="{ name, value, exact, differs } in facts" :key="name"
        ><dt>{{ name }}</dt>
        <dd :class="{ differs }" :title="exact">{{ value || 'none' }}</dd></template
      >
    </dl>
  </section>
</template>

<style scoped>
.side {
  min-width: 0;
  display: grid;
  gap: 8px;
  align-content: start;
}
h3 {
  margin: 0;
  font-size: 13px;
  font-weight: 650;
}
.picture {
  display: grid;
  place-items: center;
  height: 190px;
  background: #dce3e1;
  border: 1px solid var(--line);
}
img {
  max-width: 100%;
  max-height: 188px;
  object-fit: contain;
}
dl {
  display: grid;
  grid-template-columns: 62px minmax(0, 1fr);
  gap: 2px 8px;
  margin: 0;
  font-size: 12.5px;
}
dt {
  color: var(--soft);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
.differs {
  font-weight: 650;
}
</style>
