<script setup lang="ts">
import { ROLES, hexOf, hexSchema, type Colour } from '~~/core/look/colour'
import type { Palette } from '~~/core/look/palette'
import { ROLE_WORDS } from '~/editor/words'

/** A colour: one of the site's, which follows it, or one of its own. */
const props = defineProps<{
  words: string
  value: Colour | null
  palette: Palette
  /** words for having none of its own */ none?: string
}>()
const emit = defineEmits<{ change: [colour: Colour | null] }>()

const hex = computed(() => (props.value === null ? '#000000' : hexOf(props.value, props.palette)))
const isOwn = computed(() => props.value !== null && props.value.startsWith('#'))
const problem = ref('')

function type(event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  const result = hexSchema.safeParse(text.startsWith('#') ? text : `#${text}`)
  problem.value = result.success ? '' : result.error.issues[0]!.message
  if (result.success) emit('change', result.data)
}
</script>

<template>
  <fieldset class="colour">
    <legend>{{ words }}</legend>
    <div class="patches">
      <VBtn v-if="none" color="ink" class="none" :aria-pressed="value === null" @click="emit('change', null)">{{ none }}</VBtn>
      <VBtn
        v-for="role in ROLES"
        :key="role"
        color="ink"
        class="patch"
        :style="{ background: palette[role] }"
        :aria-pressed="value === role"
        :title="ROLE_WORDS[role]"
        :aria-label="ROLE_WORDS[role]"
        @click="emit('change', role)"
      />
      <ColourPick :none="!isOwn" :words="`${words}: a colour of its own`" :hex="hex" :held="isOwn" @change="emit('change', $event)" />
      <VTextField
        class="hex small"
        maxlength="7"
        spellcheck="false"
        :model-value="value === null ? '' : hex"
        :aria-label="`${words}, as # and six digits`"
        @change="type"
      />
    </div>
    <p v-if="problem" class="hint clay" role="alert">{{ problem }}</p>
  </fieldset>
</template>

<style scoped>
.colour {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}
legend {
  color: var(--soft);
  font-size: 12.5px;
  padding: 0;
  margin-bottom: 3px;
}
.patches {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  align-items: center;
}
.patch {
  min-height: 0;
  padding: 0;
  width: 20px;
  height: 22px;
  border: 1px solid #7e8d89;
  border-radius: 3px;
}
.patch[aria-pressed='true'] {
  outline: 2px solid var(--water);
  outline-offset: 1px;
}
.none {
  min-height: 0;
  height: 24px;
  padding: 0 6px;
  border: 1px solid #95a39f;
  border-radius: 3px;
  background: #fff;
  font-size: 12px;
}
.none[aria-pressed='true'] {
  background: #cfe2df;
  font-weight: 600;
}
.hex {
  flex: none;
  width: 72px;
}
</style>
