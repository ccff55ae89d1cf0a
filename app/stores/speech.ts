import { defineStore } from 'pinia'
import { computed } from 'vue'
import { speechOf } from '~~/core/language/speech'
import { useSession } from './session'

/** How the site speaks to its visitors; by itself, since the words of all languages are much to fetch for boards that say none. */
export const useSpeech = defineStore('speech', () => {
  const session = useSession()
  const speech = computed(() => speechOf(session.site.language, session.site.words, session.site.counts))
  return { speech }
})
