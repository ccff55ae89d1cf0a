import { behindOf, type Behind } from '~~/core/gate/asks'
import { gatesOf, type Gated } from '~~/core/gate/standing'

/** How something is seen by who reads the open page; undefined where it stands behind no gate that they have not passed. */
export const useBehind = () => {
  const [folders, gates, page] = [useFolders(), useGates(), usePage()]
  return (thing: Gated): Behind | undefined =>
    behindOf(gatesOf(thing, folders.tree), gates.rules, new Set(page.current?.gate ? [page.current.gate] : []))
}
