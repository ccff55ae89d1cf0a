/** What was acknowledged: for each file the states it may be in; two where a change was under way. */
export interface Ledger {
  files: Record<string, string[]>
  page: string[] | null
  /** which of two files everything leads to */
  led: string[]
  /** the edition that is set to go live, as far as that was acknowledged */
  set: { file: string; number: number } | null
}

export const emptyLedger = (): Ledger => ({ files: {}, page: null, led: [], set: null })

/** What a victim says. */
export type Word =
  | { checked: string[] }
  | { begins: Record<string, string> }
  | { done: Record<string, string> }
  /** everything in the bin may be gone, this file is */
  | { emptied: string }
  | { beginsPage: string }
  | { donePage: string }
  | { beginsLed: string }
  | { doneLed: string }
  /** it may happen from now on */
  | { set: Ledger['set'] }
  | { backedUp: string }

/** Takes in what a victim said. */
export function note(ledger: Ledger, word: Word): void {
  const { files } = ledger
  if ('begins' in word) {
    for (const [id, state] of Object.entries(word.begins)) {
      files[id] = [...(files[id] ?? []), state]
      // Emptying the bin takes whatever lies in it.
      if (state === 'gone')
        for (const states of Object.values(files)) if (states.at(-1)!.endsWith('binned') && !states.includes('gone')) states.push('gone')
    }
  } else if ('done' in word) Object.assign(files, Object.fromEntries(Object.entries(word.done).map(([id, state]) => [id, [state]])))
  else if ('emptied' in word) files[word.emptied] = ['gone']
  else if ('beginsPage' in word) ledger.page = [...(ledger.page ?? ['Victim', '']), word.beginsPage]
  else if ('donePage' in word) ledger.page = [word.donePage]
  else if ('beginsLed' in word) ledger.led = [...ledger.led, word.beginsLed]
  else if ('doneLed' in word) ledger.led = [word.doneLed]
  else if ('set' in word) ledger.set = word.set
}
