import type { Selection } from '~~/core/files/selection'
import type { LocalFile } from './localFiles'

/** What is dragged over the desk. */
export interface Carried {
  /** files and folders of the library */
  things?: Selection
  /** where a block of the open page stands in it */
  block?: number
  /** which entry of the bundle that is composed, from 0 */
  entry?: number
  /** it comes from the computer, or out of another window of the desk: a browser tells no more before it is let go */
  outside?: 'files' | 'things'
  /** what came from the computer, once it was let go */
  files?: Promise<LocalFile[]>
}

/** Where it is held or let go: pixels in the window, and for a list the side of the row it is nearer to. */
export interface DropPoint {
  x: number
  y: number
  side: 'before' | 'behind'
  /** Ctrl is held */
  ctrl: boolean
}

/** What can be dragged; asked for as that begins. */
export type DragSource = () => {
  carried: Carried
  /** shown at the pointer in the place of a picture of the element */
  words?: string
  /** what is shown instead of the element itself */
  picture?: HTMLElement
}

/** What takes things that are dragged. Of several that lie in each other the inmost that takes a thing gets it. */
export interface DropTarget {
  takes: (carried: Carried) => boolean
  moves?: (carried: Carried, ctrl: boolean) => boolean
  over?: (carried: Carried, at: DropPoint) => void
  out?: () => void
  drop: (carried: Carried, at: DropPoint) => unknown
}

/** Whether it is files of the computer, or things of the library, from whichever window. */
export const bringsFiles = ({ things, outside }: Carried) => !!things || !!outside
