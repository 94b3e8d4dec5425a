import { type Locator } from '@playwright/test'
import ExcelJS from 'exceljs'
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
} from './fixtures.ts'

/**
 * Sheets as shops have them, each lying another way, through the page alone: what it holds is seen, what only the shop can know is asked once, what can't be
 * read is named, and what was taken in stands where one looks for it. Taps are counted: a file dropped is one.
 */
const MOST_TAPS = 5
let shop: Shop
test.beforeAll(async () => {
  shop = await startShop(false)
})
test.afterAll(() => shop.stop())

function handOf(page: Page, name: string) {
  const told = { taps: 0, typed: 0 }
  return {
    bring: async (file: string, content: string | Buffer) => {
      await page.goto(`${shop.url}/shop?part=bring`)
      told.taps++
      await page
        .getByLabel('a file: CSV or XLSX')
        .setInputFiles({ name: file, mimeType: 'application/octet-stream', buffer: Buffer.from(content) })
    },
    tap: async (at: Locator) => {
      told.taps++
      await at.click()
    },
    pick: async (at: Locator, value: string) => {
      told.taps++
      await at.selectOption(value)
    },
    type: async (at: Locator, text: string) => {
      told.typed += text.length
      await at.fill(text)
      await at.blur()
    },
    done: () => {
      process.stdout.write(`${name}: ${told.taps} taps, ${told.typed} characters\n`)
      expect(told.taps).toBeLessThanOrEqual(MOST_TAPS)
    },
  }
}
const key = (page: Page, name: string | RegExp) => page.getByRole('button', { name })
const taken = (page: Page) => expect(page.getByRole('status').filter({ hasText: /^Taken in: / })).toBeVisible()
const done = (page: Page) => page.getByLabel('What was done')

test('six sheets that lie six ways come in through the page, and nothing of them vanishes', async ({ page }) => {
  test.setTimeout(120_000)
  await asOwner(page, shop)
  await withPlaces(page, shop, 'A1–A6')
  const year = new Date(nowMs()).getUTCFullYear() - 1

  const across = handOf(page, 'a line a gun, parts across')
  await across.bring(
    'board.csv',
    `What was changed\nGun,Tip,Shroud\nA1,3.11.${year},"3.11.${year}, 17.11.${year}"\nA2,soon,`,
  )
  await expect(page.getByText('Read as past work: a line a gun, a part a column.')).toBeVisible()
  await expect(page.getByRole('cell', { name: '“soon”' })).toBeVisible()
  await across.tap(key(page, 'Take in the rest, leave 1 out'))
  await taken(page)
  across.done()
  await page.goto(`${shop.url}/logbook?day=${year}-11-17`)
  await expect(done(page)).toContainText('Nozzle changed')

  const diary = handOf(page, 'a diary')
  await diary.bring(
    'diary.txt',
    `3 Nov ${year}: A3 nested at the rolls, new drive wheel. A4 swapped lance\nBoss wants more spools.\n4 Nov ${year} - gun A5 new tip, burnt back; a-6 swapped lance`,
  )
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
  const book = new ExcelJS.Workbook()
  const head = ['Gun', 'Part', 'Put on']
  book.addWorksheet('North hall').addRows([['North hall'], head, ['N1', 'gooseneck', `${year}-11-02`]])
  book.addWorksheet('South hall').addRows([head, ['S1', 'sombrero', `${year}-11-02`]])
  await tabs.bring('bays.xlsx', Buffer.from(await book.xlsx.writeBuffer()))
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
  await bill.bring(
    'bill.csv',
    `Invoice 2206 of 12.11.${year},,,,\nPos,Article no,Description,Qty,Unit price\n1,T-1009,"Contact tip M6 x 28, 0.9",200,0.64\n2,X-1,Leather gloves,6,11.00\n,,Freight,1,12.00`,
  )
  await expect(page.getByText(/^Read as parts. Not read, and not kept: Pos, Qty./)).toBeVisible()
  await page.getByText('2 rows say nothing to take in: left out').click()
  await expect(page.getByText(/Leather gloves/).last()).toBeVisible()
  await bill.tap(key(page, 'Take it in'))
  await taken(page)
  bill.done()

  const learners = handOf(page, 'a class list')
  await learners.bring('class.csv', 'Name,Booth,Wire\nPia Moss,L1,0.9 solid\nOle Tarn,L2,0.9 solid')
  await expect(page.getByText('Read as places and the parts on them. Not read, and not kept: Name.')).toBeVisible()
  await learners.type(page.getByLabel('area, the same in every row'), 'Class hall')
  await expect(page.getByRole('heading', { name: /^All 2 rows can be read: 2 places new, 1 wires new/ })).toBeVisible()
  await learners.tap(key(page, 'Take it in'))
  await taken(page)
  learners.done()

  const feeder = handOf(page, 'a feeder’s export')
  await feeder.bring(
    'feeder.csv',
    `timestamp;machine;arc_on_s;starts\n${year}-11-20 08:10:00;L1;900;3\n${year}-11-20 09:40:00;L1;1800;2\n${year}-11-20 10:00:00;WF-77;600;1`,
  )
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
