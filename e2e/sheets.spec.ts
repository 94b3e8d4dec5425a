import {
  asOwner,
  expect,
  nowMs,
  openGun,
  sound,
  startShop,
  test,
  withPlaces,
  type Page,
  type Shop,
  key,
} from './fixtures.ts'
import { counted, type BroughtSheet } from './fixtures/hand.ts'
import { daysBefore, sheetsOf } from './fixtures/sheets.ts'

/**
 * Sheets as shops have them, each lying another way, through the page alone: what it holds is seen, what only the shop can know is asked once, what can't be
 * read is named, and what was taken in stands where one looks for it. Taps are counted: a file dropped is one.
 */
const MOST_TAPS = 5
let shop: Shop
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async () => {
  shop = await startShop(false)
})
test.afterAll(() => shop.end())

function handOf(page: Page, name: string) {
  const hand = counted()
  return {
    ...hand,
    bring: async (sheet: BroughtSheet) => {
      await page.goto(`${shop.url}/shop?part=bring`)
      await hand.bring(page, sheet)
    },
    done: () => hand.done(name, { taps: MOST_TAPS }),
  }
}
const taken = (page: Page) => expect(page.getByRole('status').filter({ hasText: /^Taken in: / })).toBeVisible()
const done = (page: Page) => page.getByLabel('What was done')

test('six sheets that lie six ways come in through the page, and nothing of them vanishes', async ({ page }) => {
  test.setTimeout(120_000)
  await asOwner(page, shop)
  await withPlaces(page, shop, 'A1–A6')
  const sheets = await sheetsOf(nowMs())

  const across = handOf(page, 'a line a gun, parts across')
  await across.bring(sheets.across)
  await expect(page.getByText('Read as past work: a line a gun, a part a column.')).toBeVisible()
  await expect(page.getByRole('cell', { name: '“soon”' })).toBeVisible()
  await across.tap(key(page, 'Take in the rest, leave 1 out'))
  await taken(page)
  across.done()
  await page.goto(`${shop.url}/logbook?day=${daysBefore(nowMs()).last.iso}`)
  await expect(done(page)).toContainText('Nozzle changed')

  const diary = handOf(page, 'a diary')
  await diary.bring(sheets.diary)
  await expect(page.getByText('Read as past work, from a diary.')).toBeVisible()
  await diary.pick(page.getByLabel('“lance” is'), 'neck')
  await expect(page.getByRole('group', { name: '2 notes say neck changed' })).toBeVisible()
  await expect(page.getByLabel('“lance” is')).toHaveCount(0)
  await page.getByText(/words that can’t be read/).click()
  await expect(page.getByText('Boss wants more spools.').last()).toBeVisible()
  await sound(page)
  await diary.tap(key(page, 'Take it in'))
  await taken(page)
  diary.done()
  await openGun(page, 'A4')
  await expect(done(page)).toContainText('Neck changed')

  const tabs = handOf(page, 'a tab a bay')
  await tabs.bring(sheets.tabs)
  await tabs.pick(page.getByLabel('which sheet of the workbook'), '*')
  await expect(page.getByRole('cell', { name: 'South hall, row 2' })).toBeVisible()
  await tabs.pick(page.getByLabel('“sombrero” is'), 'nozzle')
  await expect(page.getByRole('heading', { name: /^All 2 rows can be read/ })).toBeVisible()
  await tabs.tap(key(page, 'Take it in'))
  await taken(page)
  tabs.done()
  await openGun(page, 'S1')
  await expect(done(page)).toContainText('Nozzle changed')

  const bill = handOf(page, 'a bill')
  await bill.bring(sheets.bill)
  await expect(page.getByText(/^Read as parts. Not read, and not kept: Pos, Qty./)).toBeVisible()
  await page.getByText('2 rows say nothing to take in: left out').click()
  await expect(page.getByText(/Leather gloves/).last()).toBeVisible()
  await bill.tap(key(page, 'Take it in'))
  await taken(page)
  bill.done()

  const learners = handOf(page, 'a class list')
  await learners.bring(sheets.learners)
  await expect(page.getByText('Read as places and the parts on them. Not read, and not kept: Name.')).toBeVisible()
  await learners.type(page.getByLabel('area, the same in every row'), 'Class hall')
  await expect(page.getByRole('heading', { name: /^All 2 rows can be read: 2 places new, 1 wires new/ })).toBeVisible()
  await learners.tap(key(page, 'Take it in'))
  await taken(page)
  learners.done()

  const feeder = handOf(page, 'a feeder’s export')
  await feeder.bring(sheets.feeder)
  await feeder.pick(page.getByLabel('“WF-77”, in one row'), 'L2')
  await expect(page.getByRole('heading', { name: /^All 3 rows can be read: 2 usage rows new/ })).toBeVisible()
  await feeder.tap(key(page, 'Take it in'))
  await taken(page)
  feeder.done()

  // A word that was explained once finds its part.
  await page.keyboard.press('/')
  await page.getByLabel('The number on the gun').fill('lance')
  await page.getByRole('button', { name: /^neck/ }).click()
  await expect(page).toHaveURL(/column=neck/)
})
