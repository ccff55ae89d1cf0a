<script setup lang="ts">
useHead({ title: 'Setup: moving in and out' })
</script>

<template>
  <div>
    <section aria-labelledby="addresses-head">
      <h2 id="addresses-head">Addresses the site had before</h2>
      <p>Visitors who come by an old address are led on to what took its place.</p>
      <div class="acts"><VBtn variant="outlined" to="/desk/old-addresses">Old addresses</VBtn></div>
    </section>
    <BagSection />
  </div>
</template>
