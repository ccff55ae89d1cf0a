<script setup lang="ts">
/** Asks how several files that are placed at once should stand. */
const props = defineProps<{
  count: number
  /** they lie in the library already */ stored: boolean
  /** the folder of the computer that they are */ name?: string
  /** each of them is a picture */ pictures: boolean
}>()
const emit = defineEmits<{ choose: [way: Arrangement]; close: [] }>()
const first = ref<HTMLElement>()

const WAYS: { way: Arrangement; words: string; hint: string }[] = [
  { way: 'pictures', words: 'Pictures', hint: 'Shown on the page, two or three side by side.' },
  { way: 'row', words: 'Row of buttons', hint: 'Side by side as far as there is room.' },
  { way: 'stack', words: 'Buttons, one below the other', hint: 'Each can be moved by itself.' },
  { way: 'cards', words: 'Cards', hint: 'Each with its picture and what it is, two or three side by side.' },
  { way: 'shelf', words: 'Shelf', hint: 'A list; visitors may take several of them as one zip.' },
  { way: 'bundle', words: 'One bundle', hint: 'A single button that gives them all as one zip, always as they are now.' },
  { way: 'library', words: 'Not on the page', hint: 'They come into the library, and wait there.' },
]
/** More than these are nothing to be looked through as buttons. */
const MOST_SINGLE = 60
const ways = computed(() =>
  WAYS.filter(({ way }) => {
    if (way === 'library') return !props.stored
    if (way === 'pictures' && !props.pictures) return false
    return way === 'shelf' || way === 'bundle' || props.count <= MOST_SINGLE
  }),
)
const question = computed(() =>
  props.name
    ? `How should the ${counted(props.count, 'file')} of “${props.name}” stand?`
    : `How should these ${counted(props.count, 'file')} stand?`,
)
onMounted(() => first.value?.querySelector('button')?.focus())
</script>

<template>
  <VDialog :model-value="true" max-width="440" aria-labelledby="arrange-head" @update:model-value="emit('close')">
    <div class="dialog">
      <h2 id="arrange-head">{{ question }}</h2>
      <div ref="first" class="ways">
        <VBtn v-for="{ way, words, hint } in ways" :key="way" class="way" @click="emit('choose', way)">
          <b>{{ words }}</b><span>{{ hint }}</span>
        </VBtn>
      </div>
      <VBtn @click="emit('close')">{{ stored ? 'Place none of them' : 'Cancel' }}</VBtn>
    </div>
  </VDialog>
</template>

<style scoped>
.way:focus-visible {
  border-color: var(--water);
  background: #f3f7f6;
}
</style>
