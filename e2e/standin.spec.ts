import { spawn, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { clockShiftMs, expect, signIn, startShop, test, type Shop } from './fixtures.ts'

/** The demo's feeders as a process of its own, against a real shop: seen on Floor, unplugged, plugged in again. */
const SECRET = 'a secret of sixteen letters or more'
let shop: Shop
let folder: string
let standIn: ChildProcess | null = null
const memory = () => join(folder, 'standin.json')

function plugIn(): void {
  standIn = spawn(process.execPath, ['dist/server/standin.js'], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: {
      ...process.env,
      SHOP_URL: shop.url,
      STANDIN_SECRET: SECRET,
      STANDIN_FILE: memory(),
      STANDIN_EVERY_MS: '2000',
      CLOCK_SHIFT_MS: String(clockShiftMs()),
    },
  })
}
async function unplug(signal: NodeJS.Signals): Promise<void> {
  const gone = new Promise((done) => standIn?.once('exit', done))
  standIn?.kill(signal)
  await gone
  standIn = null
}
interface Kept {
  bootId: string
  nextSeq: number
  buffer: unknown[]
}
/** What it remembers of its six feeders; nothing before its first round is over. */
const kept = () =>
  existsSync(memory()) ? Object.values(JSON.parse(readFileSync(memory(), 'utf8')) as Record<string, Kept>) : []
const areAll = (is: (feeder: Kept, i: number) => boolean) => () => kept().length === 6 && kept().every(is)
const isEmpty = areAll((k) => k.buffer.length === 0)

// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async () => {
  test.setTimeout(180_000)
  folder = mkdtempSync(join(tmpdir(), 'idle-standin-'))
  shop = await startShop(true, { STANDIN_SECRET: SECRET })
})
test.afterAll(async () => {
  if (standIn) await unplug('SIGTERM')
  await shop.end()
  rmSync(folder, { recursive: true, force: true })
})

test('feeders that send are seen on Floor; killed and plugged in again they go on where they were', async ({
  page,
}) => {
  test.setTimeout(200_000)
  plugIn()
  await signIn(page, shop, { name: 'Ilse Varn', password: 'low-tide-at-six' })
  const cells = page.getByRole('button', { name: /Robot cells/ })
  // A Floor that nobody sent to asks once a minute; opened anew it asks at once, and from then on every few seconds.
  await expect.poll(() => kept().length, { timeout: 80_000 }).toBe(6)
  await page.reload()
  await expect(cells).toContainText(/welding/, { timeout: 80_000 })
  await expect.poll(isEmpty, { timeout: 30_000 }).toBe(true)
  const before = kept()
  await unplug('SIGKILL')
  plugIn()
  await expect
    .poll(
      areAll((k, i) => k.nextSeq > (before[i]?.nextSeq ?? 0)),
      { timeout: 40_000 },
    )
    .toBe(true)
  expect(kept().map((k) => k.bootId)).toEqual(before.map((k) => k.bootId))
  await expect.poll(isEmpty, { timeout: 30_000 }).toBe(true)
})

test('while the shop is away they keep their rows, and send them when it is back', async () => {
  test.setTimeout(120_000)
  if (!standIn) plugIn()
  await expect.poll(isEmpty, { timeout: 40_000 }).toBe(true)
  await shop.stop()
  await expect
    .poll(
      areAll((k) => k.buffer.length > 0),
      { timeout: 40_000 },
    )
    .toBe(true)
  await shop.start()
  await expect.poll(isEmpty, { timeout: 40_000 }).toBe(true)
})
