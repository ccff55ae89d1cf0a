<script setup lang="ts">
import { leaveSchema, type Finding } from '~~/core/walk/finding'

/** One finding: what it is about, where, what is wrong, the act that mends it, and a way to leave it. */
const props = defineProps<{ finding: Finding }>()
const checks = useChecks()
const rights = useRights()
const { problem, attempt } = useAttempt()
const busy = ref(false)
const leaving = ref(false)
const form = useForm({
  schema: leaveSchema.pick({ because: true }),
  begin: () => ({ because: '' }),
  send: async ({ because }) => {
    await checks.leave(props.finding, because)
    leaving.value = false
  },
})

async function act(what: () => Promise<unknown>) {
  busy.value = true
  await attempt(what)
  busy.value = false
}
</script>

<template>
  <li class="finding">
    <FindingButton :finding="finding" />
    <div class="what">
      <p class="words">{{ finding.words }}</p>
      <p class="where">
        <NuxtLink :to="placeOnPage(finding.page.id, finding.placement)">{{ finding.page.title }}</NuxtLink>
        <span v-if="finding.draftOnly" class="mark">in the draft only: visitors do not meet it yet</span>
      </p>
      <p v-if="finding.left" class="hint">Left, because: {{ finding.left }}</p>
      <p v-if="problem" class="hint clay" role="alert">{{ problem }}</p>
    </div>
    <VForm v-if="leaving" class="because" @submit.prevent="form.submit">
      <VTextField
        v-focus
        v-bind="form.field('because')"
        label="It may stay, because"
        maxlength="300"
        class="field"
        @keydown.esc.stop="form.leave(() => (leaving = false))"
      />
      <VBtn type="submit" variant="outlined" :loading="form.busy.value">Leave it</VBtn>
      <VBtn @click="leaving = false">Cancel</VBtn>
      <p v-if="form.problem.value" class="problem" role="alert">{{ form.problem.value }}</p>
    </VForm>
    <div v-else class="acts">
      <VBtn
        v-if="finding.act && !finding.left && rights.mends"
        variant="outlined"
        class="mend"
        :disabled="busy"
        @click="act(() => checks.mend([finding]))"
      >
        {{ finding.act }}
      </VBtn>
      <VBtn v-if="finding.left" :disabled="busy" @click="act(() => checks.takeUp(finding))"> Show it again </VBtn>
      <VBtn v-else :aria-label="`Leave it: “${finding.label}”`" @click="leaving = true"> Leave it… </VBtn>
    </div>
  </li>
</template>

<style scoped>
.finding {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) minmax(0, 260px);
  gap: 6px 14px;
  align-items: center;
  padding: 9px 0;
  border-top: 1px solid var(--line);
}
.what {
  min-width: 0;
  overflow-wrap: anywhere;
}
.where {
  font-size: 12.5px;
}
.mark {
  margin-left: 8px;
  padding-left: 7px;
  border-left: 4px solid var(--straw);
  color: var(--soft);
}
.acts {
  justify-content: flex-end;
}
.mend {
  max-width: 100%;
  white-space: normal;
  text-align: left;
  padding-block: 3px;
  line-height: 1.3;
  overflow-wrap: anywhere;
}
.because {
  grid-column: 2 / -1;
  display: flex;
  gap: 6px;
  align-items: end;
  flex-wrap: wrap;
}
.because .field {
  flex: 1;
  min-width: 180px;
}
@container (max-width: 680px) {
  .finding {
    grid-template-columns: 130px minmax(0, 1fr);
    align-items: start;
  }
  .acts {
    grid-column: 2;
    justify-content: flex-start;
  }
}
</style>
