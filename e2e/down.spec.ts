import { type DownAnswer } from '@contract/down.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { apiOf, asOwner, expect, readyForOffline, startShop, test, type Page, type Shop } from './fixtures.ts'

/** It's down: from the first tap to the closing test, on a phone; with an answer taken back; somebody who knows; without a link. */
let shop: Shop
let fit: FitShop
test.use({ viewport: { width: 390, height: 844 }, serviceWorkers: 'allow' })
test.beforeAll(async ({ browser }) => {
  test.setTimeout(120_000)
  shop = await startShop(false)
  const page = await browser.newPage()
  await asOwner(page, shop)
  fit = await openFitShop(apiOf(page, shop), 'A1–A6')
  await page.close()
})
test.afterAll(() => shop.stop())

const id = (name: string) => fit.ids.get(name) ?? ''
const at = (name: string) => `/down?gun=${id(name)}`
const gun = async (page: Page, name: string) => (await apiOf(page, shop).get<GunAnswer>(`/gun/${id(name)}`)).body
const lines = async (page: Page, name: string) =>
  (await apiOf(page, shop).get<LogbookAnswer>('/logbook')).body.lines.filter((l) => l.stationName === name)
const main = (page: Page) => page.locator('.down-now .step-do')
/** Answers what is asked: the given answer where it is offered, else that all is well there. */
async function goOn(page: Page, wanted: readonly string[]): Promise<string[]> {
  const asked: string[] = []
  for (let n = 0; n < 20; n++) {
    const keys = page.getByRole('group', { name: 'What is seen' }).getByRole('button')
    if ((await keys.count()) === 0) return asked
    asked.push(await main(page).innerText())
    const hit = keys.filter({ hasText: new RegExp(wanted.join('|'), 'i') })
    await ((await hit.count()) > 0 ? hit.first() : keys.last()).click()
    await page.waitForTimeout(100)
  }
  return asked
}

test('a burnback from the first tap to the closing test; one answer is taken back; the log tells it all', async ({
  page,
}) => {
  test.setTimeout(90_000)
  await asOwner(page, shop, at('A1'))
  await page.getByRole('button', { name: 'It’s down: let minutes run' }).click()
  await expect(page.getByRole('heading', { name: 'A1 down' })).toBeVisible()
  await page.getByRole('button', { name: 'Stuck in tip' }).click()
  await page.getByRole('button', { name: 'Wire burned back into the tip' }).click()
  await expect(main(page)).toHaveText('What was touched last?')
  await page.getByRole('button', { name: 'Nothing' }).click()
  await expect(page.getByText('Trade order (guess); none of your own yet.')).toBeVisible()
  const first = await main(page).innerText()
  for (const box of await page.locator('.down-now .walk-keys .key').all())
    expect((await box.boundingBox())?.height).toBeGreaterThanOrEqual(88)
  await page.getByRole('group', { name: 'What is seen' }).getByRole('button').last().click()
  await expect(main(page)).not.toHaveText(first)
  await page.getByRole('button', { name: 'take back' }).click()
  await expect(main(page)).toHaveText(first)
  // A page that is closed goes on where it was.
  await page.reload()
  await expect(main(page)).toHaveText(first)
  const asked = await goOn(page, ['That brings it back', 'Oval or keyholed'])
  expect(asked.length).toBeLessThan(10)
  if (await page.getByRole('button', { name: 'Done: it runs' }).isVisible())
    await page.getByRole('button', { name: 'Done: it runs' }).click()
  await expect(main(page)).toHaveText('Feed free, then weld a little.')
  await page.getByRole('button', { name: 'Tip worn' }).click()
  await page.getByRole('button', { name: 'Right: it runs' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'A1', exact: true })).toBeVisible()
  await expect
    .poll(async () => (await lines(page, 'A1')).map((l) => l.kind))
    .toEqual(expect.arrayContaining(['stopped', 'restarted', 'fitted', 'explained']))
  expect((await gun(page, 'A1')).downSinceMs).toBeNull()
  const said = await lines(page, 'A1')
  expect(said.find((l) => l.kind === 'explained')).toMatchObject({ what: 'tip worn=sure' })
  // "To try" until it brought it back.
  await expect.poll(async () => (await lines(page, 'A1')).find((l) => l.kind === 'fitted')?.outReason).toBe('worn')
  const { body } = await apiOf(page, shop).get<DownAnswer>(`/down?stationId=${id('A2')}`)
  expect(body.turned).toEqual([{ symptom: 'burnback', cause: 'tipWorn', n: 1 }])
  await page.goto(`${shop.url}${at('A2')}`)
  await page.getByRole('button', { name: 'Stuck in tip' }).click()
  await page.getByRole('button', { name: 'Wire burned back into the tip' }).click()
  await page.getByRole('button', { name: 'Nothing' }).click()
  await expect(page.getByText('Yours 1, trade 30.')).toBeVisible()
})

test('somebody knows: a tap on the path, the cause, done; still there, and the search goes on', async ({ page }) => {
  await asOwner(page, shop, at('A3'))
  await page.getByRole('button', { name: 'It’s down: let minutes run' }).click()
  await page.getByRole('button', { name: 'Holes in weld' }).click()
  await page.getByRole('button', { name: 'Moved' }).click()
  await page.getByRole('button', { name: /^gun pin/ }).click()
  await page.getByRole('button', { name: 'Gun not pushed home' }).click()
  await expect(main(page)).toHaveText('Push it home and lock it')
  await page.getByRole('button', { name: 'Done: still there' }).click()
  await expect(page.getByRole('group', { name: 'What is seen' })).toBeVisible()
  expect((await gun(page, 'A3')).downSinceMs).not.toBeNull()
  await page.getByRole('button', { name: 'running' }).click()
  await page.getByRole('button', { name: 'Nobody knows' }).click()
  await page.getByRole('button', { name: 'Not tried' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'A3', exact: true })).toBeVisible()
  await page.goto(`${shop.url}/down`)
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Nothing is down.')
})

test('without a link the whole search goes on, and arrives when it is back', async ({ page }) => {
  test.setTimeout(120_000)
  await asOwner(page, shop, at('A4'))
  await page.getByRole('button', { name: 'It’s down: let minutes run' }).click()
  await expect(page.getByRole('heading', { name: 'A4 down' })).toBeVisible()
  await readyForOffline(page)
  await page.reload()
  await expect(page.getByText('What is seen?')).toBeVisible()
  await shop.stop()
  await page.reload()
  await page.getByRole('button', { name: 'Won’t start' }).click()
  await page.getByRole('button', { name: 'Nothing' }).click()
  await goOn(page, ['Rust, paint, loose'])
  await page.getByRole('button', { name: 'Done: it runs' }).click()
  await page.getByRole('button', { name: 'Right: it runs' }).click()
  await expect(page.locator('.act-strip')).toContainText('kept on this device', { timeout: 20_000 })
  await shop.start()
  await page.evaluate(() => dispatchEvent(new Event('online')))
  await expect
    .poll(async () => (await lines(page, 'A4')).map((l) => l.kind), { timeout: 20_000 })
    .toEqual(expect.arrayContaining(['restarted', 'explained']))
  expect((await gun(page, 'A4')).downSinceMs).toBeNull()
})
