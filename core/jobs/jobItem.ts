/** What became of one thing a job dealt with. */
export interface JobLine {
  name: string
  outcome: 'made' | 'edition' | 'skipped' | 'refused'
  /** why it was refused or skipped */
  why?: string
}

/** Work that takes a while on the server, shown in the trough. */
export interface JobItem {
  id: string
  kind: 'fetch' | 'unpack' | 'bag'
  /** what it works on: an address, or a file's title */
  name: string
  done: number
  /** null where it is not known yet */
  total: number | null
  unit: 'bytes' | 'files'
  state: 'running' | 'done' | 'failed' | 'stopped'
  error: string | null
  /** further members of the problem that ended it */
  extra: Record<string, unknown>
  /** identities of the files it made */
  files: string[]
  report: JobLine[]
}
