<template>
  <main class="door">
    <div class="card">
      <p class="word-mark"><img src="/_desk/mark.svg" alt="" width="34" height="34" />Trough</p>
      <slot />
    </div>
  </main>
</template>

<style scoped>
.door {
  min-height: 100dvh;
  display: grid;
  place-items: center;
  padding: 20px;
  background: linear-gradient(#dde4e2, var(--grey) 40%, #d2dbd9);
}
.card {
  width: 100%;
  max-width: 400px;
  padding: 28px 30px 30px;
  background: #fff;
  border: 1px solid #a9b7b3;
  border-radius: 4px;
  display: grid;
  gap: 16px;
}
.word-mark {
  display: flex;
  align-items: center;
  gap: 10px;
  font-size: 22px;
  font-weight: 700;
  letter-spacing: -0.01em;
}
</style>
