const ENTITIES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }

/** Text made safe for an HTML body or a double-quoted attribute. */
export function escapeHtml(text: string): string {
  return text.replace(/[&<>"]/g, character => ENTITIES[character]!)
}
