<script setup lang="ts">
import { z } from 'zod'
import { sessionItemSchema, type SessionItem } from '~~/core/account/accountForms'

const listSchema = z.object({ items: z.array(sessionItemSchema) })

/** Where one is signed in. */
const sessions = ref<SessionItem[]>([])
const problem = ref('')
const others = computed(() => sessions.value.filter(session => !session.own).length)

async function attempt(act: () => Promise<unknown>) {
  problem.value = ''
  try {
    await act()
    sessions.value = (await ask(listSchema, '/account/sessions')).items
  } catch (error) {
    problem.value = wordsOf(error)
  }
}
onMounted(() => attempt(async () => undefined))
</script>

<template>
  <section aria-labelledby="sessions-head">
    <h2 id="sessions-head">Where you are signed in</h2>
    <VTable>
      <thead>
        <tr>
          <th scope="col">Device</th>
          <th scope="col">Address</th>
          <th scope="col">Last used</th>
          <th scope="col"><span class="tr-spoken">Acts</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="session in sessions" :key="session.id">
          <td>{{ session.device }}</td>
          <td class="mono">{{ session.place }}</td>
          <td>{{ session.own ? 'now, here' : longDate(session.used) }}</td>
          <td class="act">
            <VBtn
              v-if="!session.own"
              :aria-label="`End the session of ${session.device}`"
              @click="attempt(() => tell(`/account/sessions/${session.id}`, 'DELETE'))"
              >End</VBtn
            >
          </td>
        </tr>
      </tbody>
    </VTable>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div v-if="others" class="acts">
      <VBtn variant="outlined" @click="attempt(() => tell('/account/sessions/end-others', 'POST'))">End all others</VBtn>
    </div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
h2 {
  margin: 0;
}
.act {
  text-align: right;
}
</style>
