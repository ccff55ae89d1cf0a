import { autoScrollForElements } from '@atlaskit/pragmatic-drag-and-drop-auto-scroll/element'
import { autoScrollForExternal } from '@atlaskit/pragmatic-drag-and-drop-auto-scroll/external'
import { attachClosestEdge, extractClosestEdge } from '@atlaskit/pragmatic-drag-and-drop-hitbox/closest-edge'
import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine'
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter'
import { setCustomNativeDragPreview } from '@atlaskit/pragmatic-drag-and-drop/element/set-custom-native-drag-preview'
import { pointerOutsideOfPreview } from '@atlaskit/pragmatic-drag-and-drop/element/pointer-outside-of-preview'
import { dropTargetForExternal } from '@atlaskit/pragmatic-drag-and-drop/external/adapter'
import { containsFiles } from '@atlaskit/pragmatic-drag-and-drop/external/file'
import type { Directive } from 'vue'
import type { Selection } from '~~/core/files/selection'
import { filesIn } from '~/composables/localFiles'
import type { Carried, DragSource, DropPoint, DropTarget } from '~/composables/carried'

declare module 'vue' {
  interface GlobalDirectives {
    vDrag: Directive<HTMLElement, DragSource>
    vDrop: Directive<HTMLElement, DropTarget | undefined>
    vDragScroll: Directive<HTMLElement>
  }
}

/** The type under which things of the library go from one window of the desk to another. */
const LIBRARY_DRAG = 'application/x-trough-library'

/** What is dragged in this window. */
interface OwnSource {
  data: Record<string | symbol, unknown>
}
/** What comes from elsewhere. */
interface OutsideSource {
  types: string[]
  items: DataTransferItem[]
  getStringData: (type: string) => string | null
}
interface Held {
  input: { clientX: number; clientY: number; ctrlKey: boolean }
}

const ofOwn = ({ data }: OwnSource) => data.carried as Carried
function ofOutside(source: OutsideSource): Carried {
  if (containsFiles({ source })) return { outside: 'files' }
  return source.types.includes(LIBRARY_DRAG) ? { outside: 'things' } : {}
}
function droppedFrom(source: OutsideSource): Carried {
  const text = source.getStringData(LIBRARY_DRAG)
  if (text) return { things: JSON.parse(text) as Selection }
  return { outside: 'files', files: filesIn(source.items) }
}

/** An element's part in dragging: `value` is what was last given to the directive. */
function registering<T>(register: (element: HTMLElement, value: () => T) => () => void): Directive<HTMLElement, T> {
  const parts = new WeakMap<HTMLElement, { value: T; end: () => void }>()
  return {
    mounted(element, { value }) {
      const part = { value, end: () => undefined as void }
      parts.set(element, part)
      part.end = register(element, () => part.value)
    },
    updated: (element, { value }) => void (parts.get(element)!.value = value),
    beforeUnmount: element => parts.get(element)!.end(),
  }
}

const drag = registering<DragSource>((element, source) => {
  let begun: ReturnType<DragSource> = { carried: {} }
  return draggable({
    element,
    getInitialData: () => ({ carried: (begun = source()()).carried }),
    getInitialDataForExternal: () => (begun.carried.things ? { [LIBRARY_DRAG]: JSON.stringify(begun.carried.things) } : {}),
    onGenerateDragPreview({ nativeSetDragImage }) {
      const { words, picture } = begun
      if (picture) nativeSetDragImage?.(picture, 0, 0)
      if (!words) return
      setCustomNativeDragPreview({
        nativeSetDragImage,
        getOffset: pointerOutsideOfPreview({ x: '12px', y: '6px' }),
        render({ container }) {
          const label = container.appendChild(document.createElement('div'))
          label.className = 'drag-label'
          label.textContent = words
        },
      })
    },
  })
})

const drop = registering<DropTarget | undefined>((element, target) => {
  /** The two adapters tell the same of their sources, each in its own types. */
  const listening = <S>(carriedIn: (source: S) => Carried, droppedOf: (source: S) => Carried) => {
    interface Told {
      source: S
      self: { data: Record<string | symbol, unknown> }
      location: { current: Held & { dropTargets: { element: Element }[] } }
    }
    const pointOf = ({ self, location: { current } }: Told): DropPoint => ({
      x: current.input.clientX,
      y: current.input.clientY,
      ctrl: current.input.ctrlKey,
      side: extractClosestEdge(self.data) === 'bottom' ? 'behind' : 'before',
    })
    const isInmost = ({ location }: Told) => location.current.dropTargets[0]?.element === element
    const held = (told: Told) => (isInmost(told) ? target()?.over?.(carriedIn(told.source), pointOf(told)) : target()?.out?.())
    return {
      element,
      canDrop: ({ source }: { source: S }) => !!target()?.takes(carriedIn(source)),
      getData: ({ input }: { input: Parameters<typeof attachClosestEdge>[1]['input'] }) =>
        attachClosestEdge({}, { element, input, allowedEdges: ['top', 'bottom'] }),
      getDropEffect: ({ source, input }: { source: S } & Held) =>
        target()?.moves?.(carriedIn(source), input.ctrlKey) ? ('move' as const) : ('copy' as const),
      onDropTargetChange: held,
      onDrag: held,
      onDragLeave: () => target()?.out?.(),
      onDrop(told: Told) {
        target()?.out?.()
        if (isInmost(told)) void target()?.drop(droppedOf(told.source), pointOf(told))
      },
    }
  }
  return combine(
    dropTargetForElements(listening<OwnSource>(ofOwn, ofOwn)),
    dropTargetForExternal(listening<OutsideSource>(ofOutside, droppedFrom)),
  )
})

const dragScroll = registering<undefined>(element => combine(autoScrollForElements({ element }), autoScrollForExternal({ element })))

/**
 * `v-drag` lets an element be dragged, `v-drop` lets it take what is dragged over it, `v-drag-scroll` lets it scroll while something is
 * held at its edge.
 */
export default defineNuxtPlugin(nuxt => {
  nuxt.vueApp.directive('drag', drag).directive('drop', drop).directive('drag-scroll', dragScroll)
})
