<script setup lang="ts">
import { contentCss } from '~~/core/page/pageCss'
import { provideBench } from '~/bench/bench'
import { arePictures } from '~/bench/dropping'

/** The bench of a page: the sheet it is written on, and the margin with the settings of what is selected. */
const props = defineProps<{ id: string; /** the placement to begin at */ at?: string }>()

const rights = useRights()
const page = usePage()
const looks = useLooks()
const scroll = ref<HTMLElement>()
const column = ref<HTMLElement>()
const { editor, margin, arranging, filling, finding, opening, previewing, preview } = provideBench({
  id: props.id,
  at: () => props.at,
  scroll,
  column,
})
const { failure } = opening
const { hasNote } = margin
const { row } = filling
const { open: arranged } = arranging
const drawn = useDrawn(() => page.current && editor.value)

useHead({ style: [{ innerHTML: () => contentCss(looks.style) + looks.css, key: 'page-content' }] })
</script>

<template>
  <div class="page-board">
    <p v-if="failure" class="failure" role="alert">{{ failure }} <NuxtLink to="/desk">All pages</NuxtLink></p>
    <template v-else-if="page.current && editor">
      <PageHead />
      <PageConflict v-if="page.state === 'conflict'" @load="opening.load()" @keep="opening.keepMine()" />
      <PagePreview v-if="previewing" @keydown.esc="preview" />
      <PageToolbar
        v-if="rights.may('write')"
        v-show="!previewing"
        :editor="editor"
        @place="finding.open('place')"
        @add="finding.add"
        @link="finding.open('link')"
      />
      <div v-show="!previewing" ref="scroll" v-drag-scroll class="scroll">
        <div class="desk-top" :class="{ 'has-note': hasNote }">
          <div ref="column" class="sheet-column"><PageSheet /></div>
          <PageMargin v-if="drawn" />
        </div>
      </div>
    </template>
    <FolderPickDialog
      v-if="row"
      question="A button for each file of which folder?"
      hint="They look like the first button of this row."
      act="Fill the row"
      @choose="filling.fill"
      @close="row = undefined"
    />
    <ArrangeDialog
      v-if="arranged"
      :count="arranged.ours.length + arranged.files.length"
      :name="arranged.name"
      :stored="!arranged.files.length"
      :pictures="
        arePictures(
          arranged.ours,
          arranged.files.map(({ file }) => file),
        )
      "
      @choose="arranging.arrange"
      @close="arranged = undefined"
    />
  </div>
</template>

<style scoped>
.page-board {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
}
.failure {
  padding: 20px;
}
.scroll {
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: var(--grey);
}
.desk-top {
  display: grid;
  grid-template-columns: minmax(0, 1080px) 264px;
  justify-content: center;
  min-height: 100%;
  gap: 0;
  padding: 14px 14px 0;
}
@container (max-width: 700px) {
  .desk-top {
    grid-template-columns: minmax(0, 1fr);
    padding: 0;
  }
}
</style>
