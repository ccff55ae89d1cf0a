<script setup lang="ts">
import { z } from 'zod'
import { LANGUAGES } from '~~/core/language/languages'
import { WORD_KEYS, ownWordsSchema } from '~~/core/language/words/ownWords'
import { WORDS, type WordKey } from '~~/core/language/words/words'

/** What Trough itself says to visitors, each thing open to be said otherwise. */
const session = useSession()
const notices = useNotices()
const language = computed(() => session.site.language)

/** An empty field leaves the words as they are. */
const schema = z.object(
  Object.fromEntries(WORD_KEYS.map(key => [key, z.string().trim().max(300, 'Keep it to 300 characters.')])) as Record<WordKey, z.ZodString>,
)
const { field, submit, problem, busy, changed, reset } = useForm({
  schema,
  begin: () => Object.fromEntries(WORD_KEYS.map(key => [key, session.site.words[key] ?? ''])) as Record<WordKey, string>,
  send: async written => {
    const words = ownWordsSchema.parse(Object.fromEntries(Object.entries(written).filter(([, text]) => text)))
    await session.saveSite({ words })
    reset()
    notices.say('Saved. Live pages say it at once.', { tone: 'works' })
  },
})
useKeepWritten(changed)

const usual = (key: WordKey) => {
  const word = WORDS[language.value][key]
  return typeof word === 'string' ? word : word.other
}
</script>

<template>
  <FoldSection heading="Words visitors read">
    <VForm class="words" @submit.prevent="submit">
      <p class="hint">
        What Trough itself says on your pages, in {{ LANGUAGES[language].title }}. Write beside it what shall be said instead; what stands
        in braces, such as <code>{count}</code>, is put in where it is said.
      </p>
      <VTextField v-for="key in WORD_KEYS" :key="key" v-bind="field(key)" :label="usual(key)" maxlength="300" :lang="language" />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts"><VBtn type="submit" variant="flat" :loading="busy">Save the words</VBtn></div>
    </VForm>
  </FoldSection>
</template>

<style scoped>
.words {
  display: grid;
  gap: 8px;
  max-width: 460px;
}
</style>
