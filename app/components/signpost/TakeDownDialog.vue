<script setup lang="ts">
import type { Use } from '~~/core/files/fileItem'
import type { SignpostItem } from '~~/core/signposts/signpostItem'

/** Takes a signpost down; where places lead to it, shows them and three ways on. */
const props = defineProps<{ signpost: SignpostItem }>()
const emit = defineEmits<{ close: []; gone: [] }>()
const signposts = useSignposts()
const { problem, attempt } = useAttempt()
const uses = ref<Use[]>()
const file = computed(() => (props.signpost.file ? useLibrary().known.get(props.signpost.file) : undefined))

async function remove(way?: 'straight' | 'off' | 'despite') {
  await attempt(async () => {
    const places = await signposts.remove(props.signpost.id, way)
    if (places.length) {
      uses.value = places
      return
    }
    useNotices().say(`The signpost “${props.signpost.title}” is down. Its address says so.`, {})
    emit('gone')
  })
}
onMounted(() => remove())
</script>

<template>
  <VDialog :model-value="!!uses || !!problem" max-width="560" aria-labelledby="down-head" @update:model-value="emit('close')">
    <div class="dialog">
      <h2 id="down-head">
        {{
          problem
            ? 'That did not work'
            : `${counted(uses?.length ?? 0, 'place')} ${uses?.length === 1 ? 'leads' : 'lead'} to “${signpost.title}”`
        }}
      </h2>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <template v-if="uses">
        <PlaceList :uses="uses" class="list" />
        <div class="ways">
          <VBtn v-if="file" v-focus class="way" @click="remove('straight')">
            <b>Lead them straight to “{{ file.title }}”</b
            ><span>Visitors notice nothing. Another file later has to be put in each place.</span>
          </VBtn>
          <VBtn class="way" @click="remove('off')">
            <b>Take them off</b><span>Buttons go, links become plain words. Live pages change at once.</span>
          </VBtn>
          <VBtn color="clay" class="way" @click="remove('despite')">
            <b>Take it down all the same</b><span>The places stay in the drafts, marked; visitors no longer see them.</span>
          </VBtn>
        </div>
      </template>
      <VBtn @click="emit('close')">Keep the signpost</VBtn>
    </div>
  </VDialog>
</template>

<style scoped>
.list {
  max-height: 200px;
  overflow: auto;
}
</style>
