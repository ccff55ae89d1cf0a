<script setup lang="ts">
import { campaignOf } from '~~/core/tally/particulars'

/** An address for one letter or poster, so that it is seen how often something was taken by it. */
const props = defineProps<{ address: string }>()
const open = ref(false)
const name = ref('')
const campaign = computed(() => campaignOf(name.value.trim().replace(/\s+/g, '-')))
const address = computed(() => `${props.address}${props.address.includes('?') ? '&' : '?'}from=${encodeURIComponent(campaign.value)}`)
</script>

<template>
  <FoldSection v-model:open="open" heading="For a letter or a poster">
    <VTextField
      v-model="name"
      label="What it is called"
      placeholder="newsletter-2026-12"
      maxlength="60"
      :error-messages="name.trim() && !campaign ? 'Use letters, digits, dots and hyphens.' : undefined"
    />
    <CopyLine v-if="campaign" :name="`Counted as “${campaign}”`" :address="address" />
    <p v-else class="hint">Downloads by this address are told apart under Downloads, by campaign.</p>
  </FoldSection>
</template>
