import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { buildWorkers } from '../buildWorkers'
import { ROOT } from '../root'
import { openTrough } from '../trough'

/** Builds the workers, and makes one empty data folder; each test copies it, since making a database anew takes seconds. */
export default async function setup(project: TestProject) {
  await buildWorkers(ROOT)
  const folder = await mkdtemp(join(tmpdir(), 'trough-template-'))
  await (await openTrough({ data: folder })).close()
  project.provide('template', folder)
  return () => rm(folder, { recursive: true, force: true })
}
