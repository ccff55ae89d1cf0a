import { execFileSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { readdir } from 'node:fs/promises'
import { join } from 'node:path'
import { strToU8, zipSync } from 'fflate'
import sharp from 'sharp'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { fileQuerySchema } from '../../../core/files/query'
import { openTestTrough, sha256, type TestTrough } from '../../testing/harness'

let test: TestTrough
/** folders that lie on disks of one megabyte */
const mounts = new Set<string>()
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(async () => {
  for (const mount of mounts) grow(mount)
  await test.close()
})

function shrink(folder: string): string {
  const mount = join(test.folder, folder)
  execFileSync('sh', ['-c', `mkdir -p ${mount} && mount -t tmpfs -o size=1m tmpfs ${mount}`])
  mounts.add(mount)
  return mount
}
function grow(mount: string) {
  execFileSync('umount', [mount])
  mounts.delete(mount)
}
const bagOf = (bytes: Buffer) =>
  Buffer.from(
    zipSync(
      {
        'b/bagit.txt': strToU8('BagIt-Version: 1.0\n'),
        'b/manifest-sha256.txt': strToU8(`${sha256(bytes)}  data/large.bin\n`),
        'b/data/large.bin': bytes,
      },
      { level: 0 },
    ),
  )
const titles = async () => (await test.trough.library.list(fileQuerySchema.parse({}))).items.map(file => file.title).sort()

it('unpacking, and a bag that comes in, end with words where the disk fills up, and leave nothing behind', async () => {
  const { unpacking, bagImport, jobs } = test.trough
  const zip = await test.put(
    'parcel.zip',
    Buffer.from(zipSync({ 'large.bin': randomBytes(3_000_000), 'small.txt': strToU8('small') }, { level: 0 })),
  )
  const bag = await test.put('bag.zip', bagOf(randomBytes(3_000_000)))
  const before = await titles()
  const mount = shrink('incoming')
  for (const { id } of [await unpacking.unpack(zip.id, 'both'), await bagImport.bringIn(bag.id, null)]) {
    await jobs.ended(id)
    expect(jobs.get(id)).toMatchObject({ state: 'failed', error: expect.stringMatching(/^The disk is full\. Free some space/) })
  }
  expect(await readdir(mount)).toEqual([])
  expect(await titles()).toEqual(before)
  grow(mount)
})

it('a picture is drawn for who asks though it cannot be kept; the reading of one says why it failed, and goes well when there is room', async () => {
  const { reading, looking, library, pictures } = test.trough
  const mount = shrink('derived')
  execFileSync('sh', ['-c', `head -c 2m /dev/zero > ${mount}/filler 2>/dev/null || true`])
  const photo = await test.put(
    'photo.png',
    await sharp({
      create: { width: 2000, height: 1500, channels: 3, background: '#888', noise: { type: 'gaussian', mean: 120, sigma: 60 } },
    })
      .png()
      .toBuffer(),
  )
  await reading.idle()
  expect(await library.get(photo.id)).toMatchObject({
    preview: 'failed',
    reading: 'failed',
    readingError: 'The disk was full, and could not keep its picture. Free some space, then read it again.',
  })
  expect(await sharp(await looking.picture(photo.sha256, 640)).metadata()).toMatchObject({ format: 'webp', width: 640 })
  expect((await pictures.find(photo.handle, 960)).bytes.length).toBeGreaterThan(1000)
  execFileSync('rm', [join(mount, 'filler')])
  await reading.again()
  await reading.idle()
  expect(await library.get(photo.id)).toMatchObject({ preview: 'ready', reading: 'done' })
})
