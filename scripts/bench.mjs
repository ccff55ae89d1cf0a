import { spawnSync } from 'node:child_process'
import { ensureBuilt, ensureCommands, ensureInstalled, ROOT } from './prepare.mjs'

ensureInstalled()
ensureBuilt()
ensureCommands({ nginx: 'nginx-light', wrk: 'wrk', curl: 'curl', chromium: 'chromium', pdftotext: 'poppler-utils', unzip: 'unzip' })
// One part alone by its name, or what is named so in it: npm run bench library, npm run bench attack:walk
const asked = process.argv.slice(2)
const parts = asked.length
  ? asked
  : ['delivery', 'bundles', 'large', 'library', 'page', 'walk', 'editions', 'shelf', 'gate', 'people', 'downloads', 'catalogue', 'attack']
if (parts.includes('formats'))
  ensureCommands(
    { 'soffice': 'libreoffice-nogui', 'ffmpeg': 'ffmpeg', 'heif-enc': 'libheif-examples', '7z': 'p7zip-full' },
    // Its parts for texts and for slides are packages of their own.
    { '/usr/lib/libreoffice/program/libswlo.so': 'libreoffice-nogui', '/usr/lib/libreoffice/program/libsdlo.so': 'libreoffice-nogui' },
  )
const missed = parts.filter(part => {
  const [script, only = ''] = part.split(':')
  return spawnSync('node', ['--import', 'tsx', `bench/${script}.ts`, only], { cwd: ROOT, stdio: 'inherit' }).status
})
if (missed.length) console.log(`\nMissed something: ${missed.join(', ')}.`)
process.exitCode = missed.length ? 1 : 0
