import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { type WalkAnswer } from '@contract/walk.ts'
import { BROWSER } from './browser.ts'
import {
  apiOf,
  asOwner,
  expect,
  onTime,
  readyForOffline,
  startShop,
  test,
  withPlaces,
  type BrowserContext,
  type Page,
  type Shop,
  heading,
} from './fixtures.ts'

/** A walk at the booth, with and without a link; on a phone with number keys; the browser killed in the middle. */
let shop: Shop
test.use({ serviceWorkers: 'allow' })
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async ({ browser }) => {
  test.setTimeout(120_000)
  shop = await startShop(false)
  const page = await browser.newPage()
  await asOwner(page, shop)
  await withPlaces(page, shop, 'A1–A12')
  await page.close()
})
test.afterAll(() => shop.end())

/** Lines of the log by gun, as they are read. */
async function logged(page: Page): Promise<Map<string, number>> {
  const { body } = await apiOf(page, shop).get<LogbookAnswer>('/logbook')
  const counts = new Map<string, number>()
  for (const { stationName } of body.lines) counts.set(stationName ?? '', (counts.get(stationName ?? '') ?? 0) + 1)
  return counts
}

test('a walk of 12 guns with the server off arrives whole and once; closed and opened in the middle it goes on', async ({
  page,
}) => {
  test.setTimeout(120_000)
  await asOwner(page, shop, '/walk?walk=hourly&minutes=60')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Twelve guns in')
  await readyForOffline(page)
  await page.reload()
  await expect(page.getByRole('button', { name: 'Begin at A1' })).toBeVisible()
  await shop.stop()
  await page.getByRole('button', { name: 'Begin at A1' }).click()
  for (let n = 1; n <= 12; n++) {
    await expect(heading(page, `A${n}`)).toBeVisible()
    if (n === 7) {
      await page.goto(`${shop.url}/walk`)
      await page.getByRole('button', { name: 'Walk on at A7: 6 of 12 done' }).click()
      await expect(heading(page, 'A7')).toBeVisible()
    }
    await page
      .getByRole('button', { name: n === 4 ? 'A ring of spatter' : 'Clean', exact: false })
      .first()
      .click()
    if (n === 4) await page.getByRole('button', { name: 'Nozzle cleaned' }).click()
  }
  await expect(heading(page, 'Twelve guns in 1 min.')).toBeVisible()
  await expect(page.getByText(/Twelve entries kept on this device until there is a link/)).toBeVisible()
  await shop.start()
  await page.evaluate(() => dispatchEvent(new Event('online')))
  await expect(page.getByText(/kept on this device/)).toHaveCount(0, { timeout: 20_000 })
  const counts = await logged(page)
  for (let n = 1; n <= 12; n++) expect(counts.get(`A${n}`), `A${n}`).toBe(n === 4 ? 2 : 1)
  const { body } = await apiOf(page, shop).get<WalkAnswer>('/walk?walk=due&minutes=200')
  expect(body.stops.flatMap((s) => s.looks.filter((l) => l.what === 'nozzleOpen'))).toEqual([])
})

test('on a phone by number keys alone; a skip and "didn’t look" note nothing', async ({ browser }) => {
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } })
  await asOwner(page, shop, '/walk?walk=handOver&minutes=60')
  await page.getByRole('button', { name: 'Begin at A1' }).click()
  const before = await logged(page)
  for (const box of await page.locator('.walk-keys .key, .walk-skip').all())
    expect((await box.boundingBox())?.height).toBeGreaterThanOrEqual(88)
  // A hand, not a scanner: keys at a scanner's pace are no shortcuts.
  const key = async (k: string) => {
    await page.waitForTimeout(150)
    await page.keyboard.press(k)
  }
  const press = async (k: string, then: string) => {
    await key(k)
    await expect(page.locator('.step-do')).toHaveText(then)
  }
  await expect(page.locator('.step-do')).toHaveText('Pin')
  await press('1', 'How the cable lies')
  await press('0', 'Tip bore')
  await press('3', 'Put right?')
  await press('1', 'Nozzle open')
  await press('1', 'Gas at the gun')
  await press('1', 'Work clamp')
  await key('1')
  await expect(heading(page, 'A2')).toBeVisible()
  await page.getByRole('button', { name: 'Skip this gun' }).click()
  await expect(heading(page, 'A3')).toBeVisible()
  for (const then of ['How the cable lies', 'Tip bore', 'Nozzle open', 'Gas at the gun', 'Work clamp'])
    await press('0', then)
  await key('0')
  await expect(heading(page, 'A4')).toBeVisible()
  await expect
    .poll(async () => (await logged(page)).get('A1'))
    // The worst of what was looked at, and the tip that was changed.
    .toBe((before.get('A1') ?? 0) + 2)
  const after = await logged(page)
  expect([after.get('A2'), after.get('A3')]).toEqual([before.get('A2'), before.get('A3')])
  await page.close()
})

test('the browser killed with entries on it: opened again they go, once', async ({ playwright }) => {
  test.setTimeout(120_000)
  const folder = mkdtempSync(join(tmpdir(), 'idle-walk-'))
  const open = async (): Promise<BrowserContext> =>
    onTime(
      await playwright.chromium.launchPersistentContext(folder, {
        executablePath: BROWSER,
        args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
        serviceWorkers: 'allow',
      }),
    )
  const first = await open()
  const page = await first.newPage()
  await asOwner(page, shop, '/walk?walk=hourly&minutes=60')
  await expect(page.getByRole('button', { name: 'Begin at A1' })).toBeVisible()
  await readyForOffline(page)
  await page.getByRole('button', { name: 'Begin at A1' }).click()
  await expect(heading(page, 'A1')).toBeVisible()
  const before = await logged(page)
  await shop.stop()
  await page.waitForTimeout(150)
  await page.keyboard.press('1')
  await expect(heading(page, 'A2')).toBeVisible()
  await page.waitForTimeout(150)
  await page.keyboard.press('1')
  await expect(heading(page, 'A3')).toBeVisible()
  await first.close()
  await shop.start()
  const second = await open()
  const again = await second.newPage()
  await again.goto(`${shop.url}/walk`)
  await expect(again.getByRole('button', { name: 'Walk on at A3: 2 of 12 done' })).toBeVisible()
  const grown = async (name: string) => ((await logged(again)).get(name) ?? 0) - (before.get(name) ?? 0)
  await expect.poll(() => grown('A2'), { timeout: 20_000 }).toBe(1)
  expect([await grown('A1'), await grown('A2'), await grown('A3')]).toEqual([1, 1, 0])
  await second.close()
  rmSync(folder, { recursive: true, force: true })
})

test('a part changed on a gun’s page without a link is kept on the device and goes when it is back', async ({
  page,
}) => {
  test.setTimeout(90_000)
  await asOwner(page, shop)
  await readyForOffline(page)
  const { body } = await apiOf(page, shop).get<{ places: { stationId: string; name: string }[] }>('/find')
  const gun = body.places.find((p) => p.name === 'A9')?.stationId ?? ''
  await page.goto(`${shop.url}/gun/${gun}`)
  await expect(heading(page, 'A9')).toBeVisible()
  const before = await logged(page)
  await shop.stop()
  await page.getByRole('button', { name: 'Tip changed' }).click()
  await page.getByRole('button', { name: 'Worn' }).click()
  await expect(page.getByText('Tip changed · kept on this device', { exact: true })).toBeVisible({ timeout: 15_000 })
  await page.reload()
  await expect(heading(page, 'A9')).toBeVisible({ timeout: 15_000 })
  await shop.start()
  await page.evaluate(() => dispatchEvent(new Event('online')))
  await expect
    .poll(async () => ((await logged(page)).get('A9') ?? 0) - (before.get('A9') ?? 0), { timeout: 20_000 })
    .toBe(1)
})

test('a walk on paper is typed back with number keys in its own order; what is at hand is said with a tap', async ({
  page,
}) => {
  await asOwner(page, shop, '/walk?walk=hourly&minutes=60')
  const paper = page.getByRole('link', { name: 'on paper' })
  const [pdf] = await Promise.all([page.waitForEvent('popup'), paper.click()])
  await pdf.close()
  const before = await logged(page)
  await page.getByRole('button', { name: /^type in the sheet of/ }).click()
  for (const name of ['A1', 'A2']) {
    await expect(heading(page, name)).toBeVisible()
    await page.waitForTimeout(150)
    await page.keyboard.press('1')
  }
  await expect(heading(page, 'A3')).toBeVisible()
  await expect.poll(async () => ((await logged(page)).get('A2') ?? 0) - (before.get('A2') ?? 0)).toBe(1)
  await page.goto(`${shop.url}/audit`)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Nobody has looked at what is at hand.')
  const a5 = page.getByRole('group', { name: 'At hand at A5' })
  await a5.getByRole('button', { name: 'Hang the gun' }).click()
  await a5.getByRole('button', { name: 'Hang the gun: there' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'One place lacks something: hang the gun 1. Eleven not looked at.',
  )
})
