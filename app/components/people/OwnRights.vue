<script setup lang="ts">
/** What one may do here, for those who work on files alone: the board beside the library would be empty. */
const rights = useRights()
const session = useSession()
useHead({ title: 'What you can do here' })
const lines = computed(() => (rights.holder ? rightsLines(rights.holder) : []))
const puts = computed(() => rights.somewhere('put'))
</script>

<template>
  <div>
    <header class="board-head"><h1>What you can do here</h1></header>
    <div class="say">
      <p v-if="puts" class="big">Open a folder of the library, and drop files on it.</p>
      <p v-else class="big">Open a folder of the library, and look at its files.</p>
      <ul v-if="lines.length">
        <li v-for="line in lines" :key="line">{{ line }}</li>
      </ul>
      <p v-else>Nothing yet: the owner of {{ session.site.name }} has not said what you may do.</p>
      <p class="hint">More than that, the owner of the site can give you.</p>
    </div>
  </div>
</template>

<style scoped>
.say {
  display: grid;
  gap: 12px;
  padding: 26px 16px;
  max-width: 560px;
  line-height: 1.5;
}
.say > * {
  margin: 0;
}
.big {
  font-size: 17px;
}
ul {
  padding-left: 18px;
}
</style>
