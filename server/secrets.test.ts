import { mkdtemp, rm, stat, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { loadSecrets } from './secrets'

let folder: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-secrets-'))
})
afterAll(() => rm(folder, { recursive: true }))

it('are made once, for the owner of the process alone, and stay', async () => {
  const first = await loadSecrets(folder)
  expect(await loadSecrets(folder)).toEqual(first)
  expect((await stat(join(folder, 'secrets.json'))).mode & 0o777).toBe(0o600)
})

it('that are damaged are not replaced unseen: every session and every mark would change', async () => {
  await writeFile(join(folder, 'secrets.json'), '{"session": "short"}')
  await expect(loadSecrets(folder)).rejects.toThrow()
})
