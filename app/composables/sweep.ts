import { ref, type Ref } from 'vue'

/** Pixels in the scrolled contents. */
export interface Area {
  left: number
  top: number
  right: number
  bottom: number
}

/** How far a pointer moves before a press becomes a sweep. */
const LEAST = 5

/** Choosing by drawing a box: begun in the gutter beside the rows, or in empty space. */
export function useSweep(scroller: Ref<HTMLElement | undefined>, choose: (area: Area, add: boolean) => unknown) {
  const box = ref<Area>()

  function startSweep(event: PointerEvent) {
    const target = event.target as HTMLElement
    const area = scroller.value!
    const free = target.closest('.gutter') || !target.closest('[draggable="true"], a, button, input, .columns')
    if (event.button !== 0 || event.pointerType === 'touch' || !free || event.offsetX > area.clientWidth) return
    const at = ({ clientX, clientY }: PointerEvent) => {
      const origin = area.getBoundingClientRect()
      return { x: clientX - origin.left, y: clientY - origin.top + area.scrollTop }
    }
    const from = at(event)
    const line = target.closest<HTMLElement>('[draggable="true"]')
    // The row itself must not be dragged along.
    if (line) line.draggable = false

    const move = (moved: PointerEvent) => {
      const to = at(moved)
      if (!box.value && Math.hypot(to.x - from.x, to.y - from.y) < LEAST) return
      moved.preventDefault()
      box.value = {
        left: Math.min(from.x, to.x),
        right: Math.max(from.x, to.x),
        top: Math.min(from.y, to.y),
        bottom: Math.max(from.y, to.y),
      }
      choose(box.value, event.ctrlKey || event.metaKey)
      const { top, bottom } = area.getBoundingClientRect()
      if (moved.clientY > bottom - 20) area.scrollTop += 12
      else if (moved.clientY < top + 20) area.scrollTop -= 12
    }
    const end = () => {
      window.removeEventListener('pointermove', move)
      if (line) line.draggable = true
      // The click that ends a sweep is not meant for the row under it.
      const swallow = (click: MouseEvent) => click.stopPropagation()
      if (box.value) window.addEventListener('click', swallow, { capture: true, once: true })
      setTimeout(() => {
        window.removeEventListener('click', swallow, { capture: true })
        box.value = undefined
      })
    }
    window.addEventListener('pointermove', move)
    window.addEventListener('pointerup', end, { once: true })
  }

  return { box, startSweep }
}
