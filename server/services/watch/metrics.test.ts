import { execFileSync } from 'node:child_process'
import { expect, it } from 'vitest'
import { createMetrics } from './metrics'

it("are read by another program: OpenMetrics, as the parser of Prometheus' own client for Python has it", async () => {
  const metrics = createMetrics({
    reading: async () => 3,
    jobs: () => 1,
    storage: async () => ({ stored: 5_000_000_000, free: 7 }),
    files: async () => 58,
  })
  for (const [kind, status, bytes, seconds] of [
    ['file', 200, 20_000, 0.002],
    ['file', 200, 20_000, 0.02],
    ['file', 304, 150, 0.001],
    ['page', 404, 900, 0.004],
  ] as const)
    metrics.observe(kind, status, bytes, seconds)
  const text = await metrics.read()
  expect(metrics.contentType).toContain('application/openmetrics-text; version=1.0.0')
  // The specification asks for this last line.
  expect(text.endsWith('# EOF\n')).toBe(true)
  const parsed = JSON.parse(
    execFileSync(
      '/usr/bin/python3',
      [
        '-c',
        `
import json, sys
from prometheus_client.openmetrics.parser import text_string_to_metric_families as parse
print(json.dumps({s.name + json.dumps(s.labels, sort_keys=True): s.value for f in parse(sys.stdin.read()) for s in f.samples if s.value == s.value}))`,
      ],
      { input: text, encoding: 'utf8' },
    ),
  ) as Record<string, number>
  expect(parsed).toMatchObject({
    'trough_requests_total{"kind": "file", "status": "200"}': 2,
    'trough_requests_total{"kind": "file", "status": "304"}': 1,
    'trough_requests_total{"kind": "page", "status": "404"}': 1,
    'trough_sent_bytes_total{"kind": "file"}': 40_150,
    'trough_request_seconds_count{"kind": "file"}': 3,
    'trough_request_seconds_bucket{"kind": "file", "le": "0.003"}': 2,
    'trough_request_seconds_bucket{"kind": "file", "le": "+Inf"}': 3,
    'trough_reading_waiting{}': 3,
    'trough_jobs_running{}': 1,
    'trough_files{}': 58,
    'trough_store_bytes{"state": "stored"}': 5_000_000_000,
    'trough_store_bytes{"state": "free"}': 7,
  })
})

it('miss none, however many come between two readings', async () => {
  const metrics = createMetrics({
    reading: async () => 0,
    jobs: () => 0,
    storage: async () => ({ stored: 0, free: 0 }),
    files: async () => 0,
  })
  const count = async () => Number(/^trough_request_seconds_count\{kind="page"\} (\d+)$/m.exec(await metrics.read())![1])
  for (const [more, all] of [
    [1, 1],
    [1234, 1235],
    [500, 1735],
  ] as const) {
    for (let asked = 0; asked < more; asked++) metrics.observe('page', 200, 900, 0.004)
    expect(await count()).toBe(all)
    expect(await metrics.read()).toContain(`trough_requests_total{kind="page",status="200"} ${all}\n`)
    expect(await metrics.read()).toContain(`trough_sent_bytes_total{kind="page"} ${all * 900}\n`)
  }
})
