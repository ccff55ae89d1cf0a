import sharp from 'sharp'
import { seeded } from './random'

/** A photograph-like picture of a glazed test tile. */
export async function makeTile(colour: { base: string; pool: string }, seed: number): Promise<Buffer> {
  const random = seeded(seed)
  const specks = Array.from({ length: 260 }, () => {
    const [x, y, r] = [120 + random() * 760, 110 + random() * 980, 0.8 + random() * 3.4]
    return `<circle cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" r="${r.toFixed(1)}" fill="#2a1d12" opacity="${(0.12 + random() * 0.4).toFixed(2)}"/>`
  }).join('')
  const runs = Array.from({ length: 7 }, (_, index) => {
    const x = 160 + index * 105 + random() * 40
    return `<ellipse cx="${x.toFixed(0)}" cy="${(860 + random() * 120).toFixed(0)}" rx="${(26 + random() * 30).toFixed(0)}" ry="${(90 + random() * 130).toFixed(0)}" fill="${colour.pool}" opacity=".55"/>`
  }).join('')
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1000" height="1250">
    <defs><linearGradient id="g" x2="0" y2="1"><stop stop-color="${colour.base}"/><stop offset=".7" stop-color="${colour.base}"/><stop offset="1" stop-color="${colour.pool}"/></linearGradient>
    <radialGradient id="l" cx=".32" cy=".2" r=".5"><stop stop-color="#fff" stop-opacity=".5"/><stop offset="1" stop-color="#fff" stop-opacity="0"/></radialGradient></defs>
    <rect width="1000" height="1250" fill="#d9d4c9"/><rect x="100" y="100" width="820" height="1080" rx="26" fill="#9a958a" opacity=".6"/>
    <rect x="90" y="80" width="820" height="1080" rx="26" fill="#a9795a"/><rect x="90" y="80" width="820" height="1000" rx="26" fill="url(#g)"/>
    ${runs}${specks}<rect x="90" y="80" width="820" height="1080" rx="26" fill="url(#l)"/><circle cx="500" cy="150" r="26" fill="#d9d4c9"/></svg>`
  return sharp(Buffer.from(svg)).png({ palette: true, effort: 1 }).toBuffer()
}

/** Outlines of pots that stand on y = 0, each about 100 wide and as high as it says. */
const POTS: { high: number; outline: string }[] = [
  { high: 70, outline: 'M-52-70C-50-30-34-4-20 0H20C34-4 50-30 52-70Z' },
  { high: 150, outline: 'M-16-150C-18-118-52-104-52-62C-52-26-34 0-24 0H24C34 0 52-26 52-62C52-104 18-118 16-150Z' },
  { high: 92, outline: 'M-40-92C-42-40-40-8-34 0H34C40-8 42-40 40-92Z' },
  { high: 120, outline: 'M-22-120C-30-110-56-92-56-52C-56-18-36 0-26 0H26C36 0 56-18 56-52C56-92 30-110 22-120Z' },
]
const GLAZES = ['#c8b48c', '#8fa58f', '#5b3a28', '#e2d6bf', '#74594a', '#a9b7b4', '#3e4a45', '#b9825a']

/** Pots on the shelves of a kiln whose door has just been opened: a photograph-like picture, wide and dark. */
export async function makeKilnShelves(): Promise<Buffer> {
  const random = seeded(29)
  const [width, height] = [2000, 1100]
  const boards = [400, 720, 1040]
  const pots = boards.flatMap((y, board) =>
    Array.from({ length: 11 }, (_, index) => {
      const { outline } = POTS[Math.floor(random() * POTS.length)]!
      const glaze = GLAZES[Math.floor(random() * GLAZES.length)]!
      const scale = 1.15 + random() * 0.45
      const x = 70 + index * 186 + (random() - 0.5) * 40
      return `<g transform="translate(${x.toFixed(0)} ${y}) scale(${scale.toFixed(2)})"><ellipse rx="60" ry="7" fill="#000" opacity=".45"/><path d="${outline}" fill="${glaze}"/><path d="${outline}" fill="url(#side)"/><path d="${outline}" fill="url(#warm${board})"/></g>`
    }),
  )
  const shelves = boards.map(
    y =>
      `<rect y="${y}" width="${width}" height="26" fill="#6f5a4a"/><rect y="${y + 26}" width="${width}" height="34" fill="url(#under)"/>`,
  )
  const glow = boards.map(
    (_, board) =>
      `<linearGradient id="warm${board}" x2="0" y2="1"><stop stop-color="#ffb45e" stop-opacity="${0.36 - board * 0.1}"/><stop offset="1" stop-color="#1d0f08" stop-opacity=".55"/></linearGradient>`,
  )
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><defs>
    <radialGradient id="fire" cx=".5" cy="0" r="1"><stop stop-color="#c8763a"/><stop offset=".55" stop-color="#6b3a22"/><stop offset="1" stop-color="#24140d"/></radialGradient>
    <linearGradient id="side"><stop stop-color="#000" stop-opacity=".5"/><stop offset=".35" stop-color="#fff" stop-opacity=".2"/><stop offset="1" stop-color="#000" stop-opacity=".55"/></linearGradient>
    <linearGradient id="under" x2="0" y2="1"><stop stop-color="#000" stop-opacity=".55"/><stop offset="1" stop-color="#000" stop-opacity="0"/></linearGradient>${glow.join('')}</defs>
    <rect width="${width}" height="${height}" fill="url(#fire)"/>${shelves.join('')}${pots.join('')}</svg>`
  return sharp(Buffer.from(svg)).blur(1.4).jpeg({ quality: 82 }).toBuffer()
}

/** The mark of the yard: a marl pit and a pot in one line, with its name. */
export const makeMark = (): Buffer =>
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 220 64" width="220" height="64"><title>Marlpit</title>
<rect width="64" height="64" rx="10" fill="#1F5A57"/><path d="M14 22H50C49 38 42 48 38 50H26C22 48 15 38 14 22Z" fill="none" stroke="#FCFBF8" stroke-width="4" stroke-linejoin="round"/><path d="M22 14H42" stroke="#E0B36A" stroke-width="4" stroke-linecap="round"/>
<g fill="none" stroke="#B4733F" stroke-width="5" stroke-linecap="round" stroke-linejoin="round"><path d="M80 46V24L92 38L104 24V46"/><path d="M124 46C116 46 113 41 113 38S116 30 124 30S132 34 132 38V46M132 38C132 43 128 46 124 46"/><path d="M142 46V30M142 36C143 32 147 30 151 30"/><path d="M160 18V46"/><path d="M172 58V38C172 33 176 30 181 30S190 34 190 38S186 46 181 46S172 43 172 38"/><path d="M200 46V31M200 22V21"/><path d="M211 20V41C211 45 213 46 216 46M206 31H216"/></g></svg>\n`)

/** A plan of the studio, as its owner drew it. */
export function makePlan(): Buffer {
  const wheels = Array.from(
    { length: 6 },
    (_, index) =>
      `<circle cx="${120 + (index % 3) * 130}" cy="${130 + Math.floor(index / 3) * 120}" r="34" fill="none" stroke="#24211D" stroke-width="3"/>`,
  ).join('')
  return Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 800 500" width="800" height="500"><title>Studio plan</title>
<rect width="800" height="500" fill="#FCFBF8"/><rect x="30" y="30" width="740" height="440" fill="none" stroke="#24211D" stroke-width="6"/>
${wheels}<rect x="560" y="70" width="150" height="110" fill="#1F5A57"/><rect x="560" y="230" width="150" height="190" fill="none" stroke="#24211D" stroke-width="3"/>
<g font-family="sans-serif" font-size="20" fill="#24211D"><text x="90" y="360">Six wheels</text><text x="596" y="132" fill="#FFFFFF">Kiln room</text><text x="580" y="330">Glaze bench</text></g></svg>\n`)
}

/** Two seconds of the kiln's end-of-firing tone: 16-bit mono PCM in a RIFF/WAVE file. */
export function makeTone(): Buffer {
  const rate = 16_000
  const samples = Buffer.alloc(rate * 2 * 2)
  for (let index = 0; index < rate * 2; index++) {
    const beat = (index / rate) % 0.5 < 0.3 ? 1 : 0
    samples.writeInt16LE(Math.round(Math.sin((2 * Math.PI * 880 * index) / rate) * beat * 12_000), index * 2)
  }
  const header = Buffer.alloc(44)
  header.write('RIFF', 0)
  header.writeUInt32LE(36 + samples.length, 4)
  header.write('WAVEfmt ', 8)
  header.writeUInt32LE(16, 16)
  header.writeUInt16LE(1, 20)
  header.writeUInt16LE(1, 22)
  header.writeUInt32LE(rate, 24)
  header.writeUInt32LE(rate * 2, 28)
  header.writeUInt16LE(2, 32)
  header.writeUInt16LE(16, 34)
  header.write('data', 36)
  header.writeUInt32LE(samples.length, 40)
  return Buffer.concat([header, samples])
}
