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
