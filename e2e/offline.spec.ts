import { cpSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { type HandoverAnswer } from '@contract/handover.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { type WalkAnswer } from '@contract/walk.ts'
import { openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import {
  apiOf,
  asOwner,
  expect,
  readyForOffline,
  startShop,
  test,
  type Page,
  type Shop,
  nowMs,
  heading,
} from './fixtures.ts'

/** A shift at the booth without a link: readings, guides, what follows; two devices on one gun; the program brought up to date meanwhile. */
let shop: Shop
let hall: Shop | undefined
let fit: FitShop
const web = mkdtempSync(join(tmpdir(), 'idle-web-'))
test.use({ serviceWorkers: 'allow', viewport: { width: 390, height: 844 } })
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async ({ browser }) => {
  test.setTimeout(120_000)
  cpSync('dist/web', web, { recursive: true })
  shop = await startShop(false, { WEB_FOLDER: web })
  const page = await browser.newPage()
  await asOwner(page, shop)
  fit = await openFitShop(apiOf(page, shop), 'A1–A12')
  await page.close()
})
test.afterAll(async () => {
  await shop.end()
  await hall?.end()
  rmSync(web, { recursive: true, force: true })
})

const id = (name: string) => fit.ids.get(name) ?? ''
const linkBack = (page: Page) => page.evaluate(() => dispatchEvent(new Event('online')))
const linesOf = async (page: Page, name: string) =>
  (await apiOf(page, shop).get<LogbookAnswer>('/logbook')).body.lines.filter((l) => l.stationName === name)

test('a reading, a guide and what follows are kept with no server and arrive once, at their own time; one is taken back', async ({
  page,
}) => {
  test.setTimeout(120_000)
  await asOwner(page, shop, `/read?gun=${id('A1')}&what=bore`)
  await readyForOffline(page)
  // Opened once while there is a link: that is what this device holds.
  for (const path of [`/gun/${id('A1')}`, `/guide?gun=${id('A1')}&do=nozzle`, `/read?gun=${id('A1')}&what=bore`]) {
    await page.goto(`${shop.url}${path}`)
    await expect(heading(page, /A1|Nozzle/)).toBeVisible()
  }
  const before = (await linesOf(page, 'A1')).length
  await shop.stop()
  const offMs = nowMs()

  await page.reload()
  await page.getByRole('group', { name: 'How' }).getByRole('button', { name: 'beside a fresh one' }).click()
  await page.getByRole('button', { name: /a little oval/i }).click()
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('Tip bore read · kept on this device', { exact: true })).toBeVisible({ timeout: 15_000 })

  await page.goto(`${shop.url}/guide?gun=${id('A1')}&do=nozzle`)
  await page.getByRole('button', { name: 'Step by step' }).click()
  for (let i = 0; i < 30 && !(await page.getByRole('button', { name: 'It stayed: cleaned' }).isVisible()); i++)
    await page.locator('.step-keys .key-chalk').first().click()
  await page.getByRole('button', { name: 'It stayed: cleaned' }).click()
  await expect(page.locator('.act-strip')).toContainText('Nozzle: done · kept on this device', { timeout: 15_000 })

  await page.goto(`${shop.url}/gun/${id('A1')}`)
  await page.getByRole('button', { name: 'Tip changed' }).click()
  await page.getByRole('button', { name: 'Worn' }).click()
  await expect(page.getByText('Tip changed · kept on this device', { exact: true })).toBeVisible({ timeout: 15_000 })
  await page.getByRole('complementary', { name: 'Last logged' }).getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('Tip changed · kept on this device', { exact: true })).toBeHidden()

  await page.goto(`${shop.url}/device`)
  await expect(heading(page, /^Two entries wait on this device/)).toBeVisible({ timeout: 15_000 })
  await expect(page.getByText('Tip bore read')).toBeVisible()
  await page.waitForTimeout(3000)
  const onMs = nowMs()
  await shop.start()
  await linkBack(page)
  await expect(heading(page, 'Nothing waits on this device.')).toBeVisible({ timeout: 20_000 })
  const lines = (await linesOf(page, 'A1')).slice(0, (await linesOf(page, 'A1')).length - before)
  expect(lines.map((l) => l.fact.kind).sort()).toEqual(['cleaned', 'reading'])
  for (const line of lines) {
    expect(line.happenedMs).toBeGreaterThanOrEqual(offMs - 1000)
    expect(line.happenedMs).toBeLessThan(onMs - 2000)
  }
})

test('two devices on one gun say the same tip without a link: both are kept, and the hand-over asks "one or two?"', async ({
  browser,
}) => {
  test.setTimeout(120_000)
  const devices = await Promise.all(
    [0, 1].map(async (n) => {
      const context = await browser.newContext({ serviceWorkers: 'allow' })
      const page = await context.newPage()
      await asOwner(page, shop)
      const link = await apiOf(page, shop).post<{ path: string }>('/people/device-link', {
        key: `two-devices-${n}`,
        name: `Tablet ${n + 1}`,
        areaId: null,
        stationId: null,
      })
      await page.goto(`${shop.url}${new URL(link.body.path, shop.url).pathname}`)
      await page.getByRole('button', { name: 'Bind it here' }).click()
      await expect(page).toHaveURL(`${shop.url}/`)
      await page.goto(`${shop.url}/gun/${id('A2')}`)
      await readyForOffline(page)
      await page.reload()
      await expect(heading(page, 'A2')).toBeVisible()
      await page.waitForLoadState('networkidle')
      return page
    }),
  )
  await shop.stop()
  for (const page of devices) {
    await page.getByRole('button', { name: 'Tip changed' }).click()
    await page.getByRole('button', { name: 'Worn' }).click()
    await expect(page.getByText('Tip changed · kept on this device', { exact: true })).toBeVisible({ timeout: 15_000 })
  }
  await shop.start()
  const [one] = devices as [Page, Page]
  for (const page of devices) await linkBack(page)
  const doubles = async () => (await apiOf(one, shop).get<HandoverAnswer>('/handover')).body.doubles
  await expect.poll(async () => (await doubles()).map((d) => d.position), { timeout: 20_000 }).toEqual(['tip'])
  await one.goto(`${shop.url}/handover`)
  await expect(one.getByText(/one or two/i)).toBeVisible()
  for (const page of devices) await page.context().close()
})

test('a tablet of a hall has a gun, its guides and readings without a link, though nobody opened them on it', async ({
  browser,
}) => {
  test.setTimeout(180_000)
  const context = await browser.newContext({ serviceWorkers: 'allow' })
  const page = await context.newPage()
  // A hall of two guns: each is held with every guide it has.
  hall = await startShop(false)
  await asOwner(page, hall)
  const api = apiOf(page, hall)
  const { ids, shop: built } = await openFitShop(api, 'H1–H2')
  const h2 = ids.get('H2')
  const link = await api.post<{ path: string }>('/people/device-link', {
    key: 'hall-tablet',
    name: 'Hall tablet',
    areaId: built.areas[0]?.id,
    stationId: null,
  })
  await page.goto(`${hall.url}${new URL(link.body.path, hall.url).pathname}`)
  await page.getByRole('button', { name: 'Bind it here' }).click()
  await expect(page).toHaveURL(`${hall.url}/`)
  await page.goto(`${hall.url}/device`)
  await readyForOffline(page)
  await expect
    .poll(() => page.evaluate(() => localStorage.getItem('idle-spool-held')), { timeout: 120_000, intervals: [1000] })
    .not.toBeNull()
  await hall.stop()
  await page.goto(`${hall.url}/gun/${h2}`)
  await expect(heading(page, 'H2')).toBeVisible({ timeout: 15_000 })
  await page.goto(`${hall.url}/guide?gun=${h2}&do=tip`)
  await expect(page.getByRole('button', { name: 'Step by step' })).toBeVisible({ timeout: 15_000 })
  await page.goto(`${hall.url}/read?gun=${h2}`)
  await expect(heading(page, /H2/)).toBeVisible({ timeout: 15_000 })
  await page.goto(`${hall.url}/liner?gun=${h2}`)
  await expect(page.getByText('Wants a liner of', { exact: false })).toBeVisible({ timeout: 15_000 })
  await page.goto(`${hall.url}/walk`)
  await expect(page.getByRole('button', { name: /^Begin at/ })).toBeVisible({ timeout: 15_000 })
  await context.close()
})

/** The same program under another name of one of its pieces, as a new build has it. */
function newBuild(): void {
  const folder = join(web, 'assets')
  const old = readdirSync(folder).find((f) => /^HandoverPage-.*\.js$/.test(f)) ?? ''
  const next = old.replace(/-.*\.js$/, '-AnotherOne.js')
  renameSync(join(folder, old), join(folder, next))
  for (const path of readdirSync(web, { recursive: true, encoding: 'utf8' })) {
    const file = join(web, path)
    if (!statSync(file).isFile() || !/\.(js|html)$/.test(path)) continue
    const text = readFileSync(file, 'utf8')
    if (text.includes(old)) writeFileSync(file, text.replaceAll(old, next))
  }
}

test('the program is brought up to date in the middle of a walk: it goes on, nothing is lost, and the next page is the new one', async ({
  browser,
}) => {
  test.setTimeout(300_000)
  const context = await browser.newContext({ serviceWorkers: 'allow' })
  const page = await context.newPage()
  await asOwner(page, shop, '/walk?walk=handOver&minutes=120')
  await readyForOffline(page)
  const beganMs = nowMs()
  await page.getByRole('button', { name: /^Begin at/ }).click()
  const answerGun = async () => {
    await expect(page.locator('.walk-keys .key').first()).toBeVisible()
    const name = (await page.getByRole('heading', { level: 1 }).innerText()).trim()
    while ((await page.getByRole('heading', { level: 1 }).innerText()).trim() === name)
      await page.locator('.walk-keys .key').first().click()
  }
  await answerGun()
  await expect(page.getByText('2 of 12')).toBeVisible()
  await shop.stop()
  await answerGun()
  // Listened for from before the new program is there: the browser may ask for it by itself as soon as the server answers.
  await page.evaluate(() => {
    const root = document.documentElement
    navigator.serviceWorker.addEventListener('controllerchange', () => (root.dataset['program'] = 'new'))
  })
  newBuild()
  await shop.start()
  // Asked for again where the first asking met a server that was only coming up; all pieces of it are fetched first, which takes a busy machine its time.
  await expect(async () => {
    await page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.update())
    await expect(page.locator('html')).toHaveAttribute('data-program', 'new', { timeout: 5_000 })
  }).toPass({ timeout: 200_000 })
  await expect(page.getByText('3 of 12')).toBeVisible()
  await answerGun()
  // What has no hash in its name is asked for anew each time, or the next program would meet a piece of this one.
  for (const piece of ['/wire.svg', '/sw.js']) {
    const answer = await page.request.get(shop.url + piece)
    expect([piece, answer.status(), answer.headers()['cache-control']]).toEqual([piece, 200, 'no-cache'])
  }
  // A piece that is not there any more: the page loads itself again, and is there.
  await page.evaluate(() => {
    history.pushState({}, '', '/handover')
    dispatchEvent(new PopStateEvent('popstate'))
  })
  await expect(heading(page, /./)).toBeVisible({ timeout: 15_000 })
  await expect(page.getByText('This page tripped')).toBeHidden()
  await page.goto(`${shop.url}/walk`)
  await page.getByRole('button', { name: /^Walk on at .*: 3 of 12 done$/ }).click()
  await expect(page.getByText('4 of 12')).toBeVisible()
  const found = async () => {
    const { body } = await apiOf(page, shop).get<LogbookAnswer>('/logbook')
    const since = body.lines.filter((l) => l.fact.kind === 'reading' && l.happenedMs >= beganMs)
    return since.map((l) => l.stationName).sort()
  }
  await expect.poll(found, { timeout: 20_000 }).toHaveLength(3)
  expect(new Set(await found()).size).toBe(3)
  await context.close()
})

test('twelve booths handed over by a class: each its own, all at once, and the page says what was found', async ({
  browser,
}) => {
  test.setTimeout(180_000)
  const context = await browser.newContext({ serviceWorkers: 'allow' })
  const lead = await context.newPage()
  await asOwner(lead, shop, '/walk?walk=handOver&minutes=120&people=12')
  const { body } = await apiOf(lead, shop).get<WalkAnswer>('/walk?walk=handOver&minutes=120&people=12')
  expect(body.parts.map((p) => p.length)).toEqual(Array.from({ length: 12 }, () => 1))
  const parts = lead.getByRole('button', { name: /: begin at/ })
  await expect(parts).toHaveCount(12)
  // Every learner at their own booth, at the same time, by what the server is sent.
  const api = apiOf(lead, shop)
  const sent = await Promise.all(
    body.stops.map((s, n) =>
      api.post<{ entries: { is: string }[] }>('/walk/found', {
        entries: [
          {
            key: `class-${n}-${nowMs()}`,
            stationId: s.stationId,
            happenedMs: nowMs(),
            looks: s.looks.map((l) => ({
              what: l.what,
              grade: l.what === 'bore' && n % 4 === 0 ? 'keyhole' : GOOD[l.what],
            })),
          },
        ],
      }),
    ),
  )
  expect(sent.map((a) => a.body.entries[0]?.is)).toEqual(Array.from({ length: 12 }, () => 'kept'))
  await lead.goto(`${shop.url}/handover`)
  const asks = (await api.get<HandoverAnswer>('/handover')).body.asks
  expect(asks.filter((a) => a.alarm.what === 'bore')).toHaveLength(3)
  await expect(heading(lead, /./)).toBeVisible()
  // Read in one look: all of it stands on one screen of a desk.
  await lead.setViewportSize({ width: 1280, height: 800 })
  const tall = await lead.evaluate(() => document.documentElement.scrollHeight)
  expect(tall).toBeLessThan(2 * 800)
  await context.close()
})
const GOOD: Record<string, string> = {
  ...{ pinHome: 'home', layout: 'straight', bore: 'round' },
  ...{ nozzleOpen: 'clean', gasFlow: 'asLeft', clamp: 'bare' },
}
