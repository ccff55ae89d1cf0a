/** Where attributes of the page's own blocks stand in copied HTML. */
export const DATA = 'data-trough'

/** Attributes travel through the clipboard as JSON; what does not fit the schema is not taken over. */
export function fromClipboard<T>(
  schema: { safeParse: (input: unknown) => { success: boolean; data?: T } },
  element: HTMLElement,
): T | false {
  try {
    const result = schema.safeParse(JSON.parse(element.getAttribute(DATA) ?? ''))
    return result.success ? result.data! : false
  } catch {
    return false
  }
}

export const attribute = (value: unknown) => ({ default: value, rendered: false })
