import { copyFile, mkdir, mkdtemp, readdir, rename, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import type { Programs } from '../../../core/files/programs'
import { runLimited } from './runLimited'

const SECONDS = 45
const MEMORY = 6_000_000_000
const LARGEST = 300_000_000

/** Macros do not run, and pictures from elsewhere are not fetched, whatever a document asks for. */
const SETTINGS = `<?xml version="1.0" encoding="UTF-8"?>
<oor:items xmlns:oor="http://openoffice.org/2001/registry">
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="MacroSecurityLevel" oor:op="fuse"><value>3</value></prop></item>
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="DisableMacrosExecution" oor:op="fuse"><value>true</value></prop></item>
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="BlockUntrustedRefererLinks" oor:op="fuse"><value>true</value></prop></item>
</oor:items>`

/**
 * Draws an office document as a PDF.
 *
 * @param pages where the PDF goes, whole or not at all
 * @throws Error in a few words where the program fails
 */
export async function drawOfficePages(programs: Programs, path: string, pages: string): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'trough-office-'))
  try {
    const profile = join(folder, 'profile')
    await mkdir(join(profile, 'user'), { recursive: true })
    await writeFile(join(profile, 'user/registrymodifications.xcu'), SETTINGS)
    await runLimited(
      programs,
      programs.office!,
      [
        `-env:UserInstallation=${pathToFileURL(profile).href}`,
        ...['--headless', '--norestore', '--nologo', '--nodefault', '--nolockcheck'],
        ...['--convert-to', 'pdf', '--outdir', join(folder, 'out'), path],
      ],
      { folder, file: path, seconds: SECONDS, memory: MEMORY, largest: LARGEST },
    )
    const [made] = (await readdir(join(folder, 'out')).catch(() => [])).filter(name => name.endsWith('.pdf'))
    if (!made) throw new Error('it made no pages of it')
    await mkdir(dirname(pages), { recursive: true })
    try {
      // The folder may lie on another disk than what is kept.
      await copyFile(join(folder, 'out', made), `${pages}.new`)
      await rename(`${pages}.new`, pages)
    } catch (error) {
      await rm(`${pages}.new`, { force: true })
      throw error
    }
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}
