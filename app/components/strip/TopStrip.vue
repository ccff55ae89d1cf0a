<script setup lang="ts">
import { mdiAccountOutline } from '@mdi/js'
import { mayOpen } from '~/rights/boards'

const rights = useRights()
const session = useSession()
const pages = usePages()
const boards = useBoards()
const { busy, publish, blocking, dismiss, waitsFor, watchArrivals, stopWaiting } = usePublish()
watchArrivals()
const page = usePage()
const checks = useChecks()
onMounted(checks.count)

const BOARDS = [
  { to: '/desk/catalogues', title: 'Catalogues' },
  { to: '/desk/downloads', title: 'Downloads' },
  { to: '/desk/signposts', title: 'Signposts' },
  { to: '/desk/gates', title: 'Gates' },
  { to: '/desk/guests', title: 'Guests' },
  { to: '/desk/contacts', title: 'Contacts' },
  { to: '/desk/letterbox', title: 'Letterbox' },
  { to: '/desk/outbox', title: 'Outbox' },
  { to: '/desk/people', title: 'People' },
  { to: '/desk/looks', title: 'Looks' },
  { to: '/desk/setup', title: 'Setup' },
  { to: '/desk/setup/people', title: 'Password and sign-in' },
]
const boardsOfMenu = computed(() => BOARDS.filter(({ to }) => mayOpen(rights, to)))

/** Pages that wait, the open one left to the button beside. */
const others = computed(() => pages.waiting.filter(item => item.id !== page.current?.id).length)
</script>

<template>
  <header class="strip">
    <NuxtLink to="/desk" class="word-mark" aria-label="Trough, all pages"
      ><img src="/_desk/mark.svg" alt="" width="24" height="24" /><span>Trough</span></NuxtLink
    >
    <FindField />
    <div class="right">
      <NuxtLink v-if="others && !page.current" to="/desk" class="waiting">{{ counted(others, 'page') }} not live as drafted</NuxtLink>
      <template v-if="page.current && rights.may('publish')">
        <span v-if="!page.current.waiting" class="all-live"><i />Live as it stands</span>
        <span v-else-if="waitsFor" class="waiting" role="status"
          >Goes live when {{ waitsFor === 1 ? 'its file is' : `its ${waitsFor} files are` }} in
          <VBtn @click="stopWaiting()">Not yet</VBtn></span
        >
        <VBtn v-else variant="flat" class="publish" title="Publish this page (Ctrl+Enter)" :disabled="busy" @click="publish()">
          {{ busy ? 'Publishing…' : 'Publish' }}<span class="which">&nbsp;“{{ page.current.title }}”</span>
        </VBtn>
      </template>
      <NuxtLink
        v-if="rights.checks"
        to="/desk/checks"
        class="plain checks"
        :title="checks.urgent ? 'What stops or misleads visitors' : 'What visitors meet on the live pages'"
        >Checks<b v-if="checks.urgent" class="count">{{ checks.urgent }}<span class="tr-spoken"> to mend</span></b></NuxtLink
      >
      <VMenu location="bottom end">
        <template #activator="{ props: activator }">
          <VBtn class="account" v-bind="activator" aria-label="Account and setup">
            <VIcon :icon="mdiAccountOutline" size="20" />
          </VBtn>
        </template>
        <MenuList>
          <VListSubheader>{{ session.email }}</VListSubheader>
          <MenuItem v-for="board in boardsOfMenu" :key="board.to" v-bind="board" />
          <MenuItem title="Keys" @click="boards.keysShown = true" />
          <MenuItem title="Sign out" @click="session.signOut()" />
        </MenuList>
      </VMenu>
    </div>
    <PublishDialog v-if="blocking" :findings="blocking" @close="dismiss" @despite="publish(true)" />
  </header>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  gap: 18px;
  height: 46px;
  padding: 0 10px 0 14px;
  background: #d3dcda;
  border-bottom: 1px solid #a9b7b3;
}
.word-mark {
  display: flex;
  align-items: center;
  gap: 8px;
  color: var(--ink);
  text-decoration: none;
  font-size: 17px;
  font-weight: 700;
  letter-spacing: -0.01em;
}
.right {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-left: auto;
  white-space: nowrap;
  min-width: 0;
}
.publish {
  max-width: 320px;
}
.which {
  overflow: hidden;
  text-overflow: ellipsis;
  font-weight: 400;
}
.waiting {
  color: var(--ink);
  border-left: 4px solid var(--straw);
  padding-left: 8px;
}
.all-live i {
  display: inline-block;
  width: 9px;
  height: 9px;
  border-radius: 50%;
  background: var(--moss);
  margin-right: 7px;
}
.checks {
  color: var(--ink);
}
.count {
  margin-left: 6px;
  min-width: 19px;
  padding: 0 5px;
  line-height: 19px;
  text-align: center;
  color: #fff;
  background: #9a4420;
  border-radius: 3px;
  font-size: 12px;
}
@media (max-width: 799px) {
  .word-mark span,
  .which,
  .all-live,
  .waiting {
    display: none;
  }
  .strip {
    gap: 8px;
  }
}
</style>
