<script setup lang="ts">
/** Takes the whole library elsewhere. */
const selection = useSelection()
</script>

<template>
  <section class="bag" aria-labelledby="bag-head">
    <h2 id="bag-head">Take the library with you</h2>
    <p>
      All files in their folders, earlier editions too, with a table of titles, descriptions, addresses and dates, and a checksum for every
      one: a <i>bag</i>, as archives and libraries exchange them (BagIt, RFC 8493), packed as a zip.
    </p>
    <div class="acts">
      <VBtn variant="outlined" @click="selection.attempt(() => selection.downloadBag(null))"> Download the library as a bag</VBtn
      ><span class="hint">A bag that you put into a library of Trough offers to be brought in.</span>
    </div>
  </section>
</template>

<style scoped>
.bag {
  display: grid;
  gap: 8px;
}
</style>
