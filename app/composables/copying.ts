/** Copies text; where the browser does not let it, `instead` says how it is had. */
export async function copyText(text: string, instead: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(text)
    return true
  } catch {
    useNotices().say(`This browser does not let Trough copy. ${instead}`, { tone: 'attention' })
    return false
  }
}
