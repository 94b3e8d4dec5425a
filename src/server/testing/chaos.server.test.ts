import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { expect, it } from 'vitest'

/** The short form: four faults, other ones each time. The long one is `npm run chaos`. */
const ROOT = fileURLToPath(new URL('../../..', import.meta.url))

it('what people were told is what is stored, whatever dies meanwhile', () => {
  const done = spawnSync(
    process.execPath,
    [join(ROOT, 'scripts/chaos.mjs'), '--rounds', '4', '--clients', '4', '--load', '1500'],
    { cwd: ROOT, encoding: 'utf8', timeout: 280_000 },
  )
  const said = done.stdout + done.stderr
  expect(said).toMatch(/4 rounds: [1-9]\d* told kept in .* 0 lost, doubled or adrift/)
  expect(done.status, said).toBe(0)
}, 300_000)
