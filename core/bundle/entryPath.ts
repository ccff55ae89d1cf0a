import type { BundleEntry } from './bundleEntry'

/** Where an entry lies in the zip and what it is called there, as one path: `Sheets/first.pdf`; own names where none is given. */
export function entryPath({ within, name }: BundleEntry, own: string): string {
  return [within, name ?? own].filter(Boolean).join('/')
}

/**
 * An entry moved to a path: what is behind the last `/` is its name, the rest the folders it lies in. A file's
 * own name, or none, leaves it under its own, which may change; a folder with none brings its files without it.
 */
export function withPath<Entry extends BundleEntry>(entry: Entry, path: string, own: string): Entry {
  const parts = path
    .split('/')
    .map(part => part.trim())
    .filter(Boolean)
  const name = path.trim().endsWith('/') ? '' : (parts.pop() ?? '')
  const within = parts.join('/')
  if (entry.kind === 'folder' || entry.kind === 'field') return { ...entry, within, name: name === own ? null : name }
  if (entry.kind === 'file') return { ...entry, within, name: name === own || !name ? null : name }
  return { ...entry, within, name: name || own }
}
