import { ref } from 'vue'
import { bringsFiles, type Carried, type DropTarget } from './carried'

/** Lets something take files of the computer, and things of the library where it takes `ours`; `over` while they are held over it. */
export function useDropOn(ours: boolean, drop: (carried: Carried) => unknown) {
  const over = ref(false)
  const target: DropTarget = {
    takes: carried => carried.outside === 'files' || (ours && bringsFiles(carried)),
    over: () => (over.value = true),
    out: () => (over.value = false),
    drop,
  }
  return { over, target }
}
