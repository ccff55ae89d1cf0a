<script setup lang="ts">
import { LANGUAGES, LANGUAGE_CODES } from '~~/core/language/languages'
import { COUNTS_TOLD } from '~~/core/language/rounded'
import { MOST_ADDRESS_DAYS, siteFormSchema } from '~~/core/site/siteForm'

/** What holds of the whole site: its name, its address, its clock, its icon. */
const session = useSession()
const notices = useNotices()
const LANGUAGE_CHOICES = LANGUAGE_CODES.map(value => ({ value, title: LANGUAGES[value].title }))
const COUNT_CHOICES = COUNTS_TOLD.map(value => ({
  value,
  title: { exact: 'As it is: 1,234', rounded: 'By its leading figures: 1,200+' }[value],
}))
const ZONES = Intl.supportedValuesOf('timeZone')

const { field, submit, problem, busy, changed, reset, renew } = useForm({
  schema: siteFormSchema,
  begin: () => {
    const { words: _, ...site } = session.site
    return site
  },
  send: async site => {
    await session.saveSite(site)
    reset()
    notices.say('Saved. Live pages show it at once.', { tone: 'works' })
  },
})
// What is being written is not lost to what was saved elsewhere.
watch(() => session.site, renew)
useKeepWritten(changed)
</script>

<template>
  <VForm class="form" aria-labelledby="site-head" @submit.prevent="submit">
    <h2 id="site-head">Site</h2>
    <VTextField v-bind="field('name')" label="Name of the site" maxlength="120" />
    <VTextField
      v-bind="field('address')"
      label="Public address"
      inputmode="url"
      placeholder="https://www.example.com"
      aria-describedby="address-hint"
    />
    <p id="address-hint" class="hint">
      Only full addresses that you copy contain it. Pages and buttons go on working when it changes, and addresses that name the old one are
      still known. <NuxtLink to="/desk/old-addresses">Old addresses of the site</NuxtLink>
    </p>
    <VAutocomplete v-bind="field('timeZone')" label="Time zone" :items="ZONES" aria-describedby="zone-hint" />
    <p id="zone-hint" class="hint">Set times are meant in it: a price list that goes live at 8 does so by its clocks.</p>
    <VSelect v-bind="field('language')" label="Language" :items="LANGUAGE_CHOICES" aria-describedby="language-hint" />
    <p id="language-hint" class="hint">
      Of what Trough itself says to visitors: dates, numbers, the words for a new tab, for pages, for what is not there.
    </p>
    <VCheckbox v-bind="field('see')" label="Visitors may look at files before they take them" aria-describedby="see-hint" />
    <p id="see-hint" class="hint">
      Pages, tables and words of a file, on a page of its own at <code>/see/</code>. Folders and files can say otherwise for themselves.
    </p>
    <VSelect v-bind="field('counts')" label="How often a file was taken, where a page says so" :items="COUNT_CHOICES" />
    <VCheckbox v-bind="field('countries')" label="Keep from which countries files are taken" aria-describedby="countries-hint" />
    <p id="countries-hint" class="hint">
      Told by a table that came with Trough: nobody is asked, and no address is kept for it. It holds from now on;
      <NuxtLink to="/desk/downloads">what was counted</NuxtLink> stays.
    </p>
    <VTextField
      v-bind="field('keepAddresses')"
      label="Days for which visitors’ addresses are kept"
      type="number"
      min="0"
      :max="MOST_ADDRESS_DAYS"
      aria-describedby="addresses-hint"
    />
    <p id="addresses-hint" class="hint">
      0 for not at all. With downloads alone, in their log, and wiped after these days. Your privacy words say so where they stand on a
      page.
    </p>
    <SiteIcon />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="acts"><VBtn type="submit" variant="flat" :loading="busy">Save</VBtn></div>
  </VForm>
</template>

<style scoped>
.form {
  max-width: 460px;
}
</style>
