/** A list with one of its items a place up or down. */
export function moved<Item>(list: readonly Item[], index: number, by: -1 | 1): Item[] {
  const items = [...list]
  const [item] = items.splice(index, 1)
  items.splice(index + by, 0, item!)
  return items
}
