import type { TestProject } from 'vitest/node'
import { startPostgres } from './postgres'

/** Starts a PostgreSQL server for the tests that are run with one; each of them has a database of its own on it. */
export default async function setup(project: TestProject) {
  const { stop, ...server } = await startPostgres()
  project.provide('postgres', server)
  return stop
}
