import { Extension } from '@tiptap/core'

/** What belongs at a line where nothing is written yet: the sheet's style shows it, until the first letter. */
export const Ghost = Extension.create({
  name: 'ghost',
  addGlobalAttributes: () => [
    {
      types: ['paragraph', 'heading'],
      attributes: {
        ghost: {
          default: null,
          // A line that is begun below is a new one.
          keepOnSplit: false,
          parseHTML: element => element.getAttribute('data-ghost')?.slice(0, 300) || null,
          renderHTML: ({ ghost }) => (ghost ? { 'data-ghost': ghost } : {}),
        },
      },
    },
  ],
})
