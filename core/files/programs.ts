/** Programs of the machine that read what no library does; each by its path. */
export interface Programs {
  /** draws the pages of office documents: LibreOffice */
  office?: string
  /** takes stills of films: ffmpeg */
  film?: string
  /** keeps the others from the network and from all files but their own: bubblewrap */
  cage?: string
}
export type ProgramName = keyof Programs

/** What a program is called on the machine, and the Debian package it comes with. */
export const PROGRAMS: Record<ProgramName, { command: string; debian: string }> = {
  office: { command: 'soffice', debian: 'libreoffice-nogui' },
  film: { command: 'ffmpeg', debian: 'ffmpeg' },
  cage: { command: 'bwrap', debian: 'bubblewrap' },
}

/** What of the disk is in a cage: programs with what they need, nothing of anybody's own (bwrap(1)). */
export const CAGE: readonly string[] = [
  ...['/usr', '/bin', '/sbin', '/lib', '/lib32', '/lib64', '/etc', '/opt', '/var/cache/fontconfig'].flatMap(path => [
    '--ro-bind-try',
    path,
    path,
  ]),
  ...['--dev', '/dev', '--proc', '/proc', '--tmpfs', '/tmp'],
]

/** Documents whose pages are drawn, and tables of which the first is. */
const PAGED =
  /^application\/(?:msword|rtf|vnd\.ms-powerpoint|vnd\.oasis\.opendocument\.(?:text|presentation)|vnd\.openxmlformats-officedocument\.(?:wordprocessingml\.document|presentationml\.presentation))$|^text\/rtf$/
const SHEETS =
  /^application\/(?:vnd\.ms-excel|vnd\.oasis\.opendocument\.spreadsheet|vnd\.openxmlformats-officedocument\.spreadsheetml\.sheet)$/

/** What an office program does for a media type. */
export const drawnByOffice = (mediaType: string): 'pages' | 'first page' | undefined =>
  PAGED.test(mediaType) ? 'pages' : SHEETS.test(mediaType) ? 'first page' : undefined

/** Whether a still can be taken of it. */
export const hasStills = (mediaType: string): boolean => mediaType.startsWith('video/')
