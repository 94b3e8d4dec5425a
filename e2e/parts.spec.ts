import { type StockAnswer } from '@contract/stock.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { nextKey } from '@server/testing/client.ts'
import { openFitShop, STEEL, type FitShop } from '@server/testing/fitshop.ts'
import { apiOf, asOwner, dragTo, expect, startShop, test, type Shop } from './fixtures.ts'

/** The shelf of a shop made from nothing: counted by scanning, ordered, taken in; and a job that runs a spool out as said. */
let shop: Shop
let fit: FitShop
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async ({ browser }) => {
  test.setTimeout(120_000)
  shop = await startShop(false)
  const page = await browser.newPage()
  await asOwner(page, shop)
  fit = await openFitShop(apiOf(page, shop), 'A1–A6')
  await page.close()
})
test.afterAll(() => shop.end())

test('a shelf is counted by scanning, an order goes out and comes in, and the log tells it', async ({ page }) => {
  test.setTimeout(90_000)
  await asOwner(page, shop, '/parts')
  await expect(page.getByRole('heading', { name: /Nobody can tell yet what will be wanted/ })).toBeVisible({
    timeout: 30_000,
  })

  // A label scanned on the open page, quick as a scanner types: its bin opens and asks how many.
  // On a machine with much to do a key may come late, and then it was fingers.
  await expect(async () => {
    await page.goto(`${shop.url}/parts`)
    await expect(page.getByRole('heading', { name: /Nobody can tell yet what will be wanted/ })).toBeVisible()
    await page.keyboard.type('RV0910', { delay: 3 })
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { name: /^RV0910/ })).toBeVisible({ timeout: 3000 })
  }).toPass({ timeout: 60_000 })
  await expect(page.getByLabel('how many', { exact: true })).toBeFocused()
  await page.keyboard.type('12')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^12 by count and log, counted/)).toBeVisible()
  // The next bin, scanned into the field.
  await page.keyboard.type('T9')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /^T9/ })).toBeVisible()
  await page.keyboard.type('0')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^0 by count and log, counted/)).toBeVisible()

  // Who sells tips, and what they cost there.
  await page.getByRole('button', { name: 'say who sells parts' }).click()
  await page.getByLabel('who', { exact: true }).fill('Dockside')
  await page.getByLabel('days an order takes').fill('5')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByText('an order takes 5 days, as said')).toBeVisible()
  await page.getByRole('button', { name: 'say who sells it' }).click()
  await page.getByLabel('pack of').fill('10')
  await page.getByLabel(/price each/).fill('0.70; from 100: 0.60')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('cell', { name: /0\.70, from 100/ })).toBeVisible()

  // Ordered by hand in the log of orders, taken in twice: the second time there is nothing left to take in.
  const api = apiOf(page, shop)
  const { suppliers } = (await api.get<StockAnswer>('/parts')).body
  const lines = [{ partId: fit.part('T9'), quantity: 20 }]
  await api.post('/parts/order', { key: nextKey(), supplierId: suppliers[0]?.id, lines })
  await page.reload()
  const order = page.getByRole('region', { name: 'On the way' })
  await expect(order.getByText(/Dockside/)).toBeVisible()
  await order.getByRole('button', { name: 'It came: on the shelf' }).click()
  await expect(order).toBeHidden()
  await expect(page.getByText(/^20 by count and log/)).toBeVisible()

  // Handed out for a gun it does not fit it is refused with the reason.
  await page.getByLabel('one out, for the gun at').fill('A1')
  await page.getByRole('button', { name: 'Hand out' }).click()
  await expect(page.getByText('Handed out.')).toBeVisible()
  await page.goto(`${shop.url}/logbook`)
  await expect(page.getByText(/ordered from Dockside: 1 line/)).toBeVisible()
})

test('a job is reckoned, laid on the short end, welded and weighed', async ({ page }) => {
  test.setTimeout(60_000)
  await asOwner(page, shop)
  const api = apiOf(page, shop)
  const wireId = (await api.get<ShopAnswer>('/shop')).body.wires.find((w) => w.name === STEEL)?.id
  const spool = (labelKg: number) => api.post('/spools', { key: nextKey(), what: { act: 'in', wireId, labelKg } })
  await spool(15)
  await spool(1.4)
  await page.goto(`${shop.url}/jobs`)
  await page.getByLabel('what', { exact: true }).fill('ladder rungs')
  await page.getByLabel('joint').fill('fillet 4')
  await page.getByLabel(/weld on a piece/).fill('0.4 m')
  await page.getByLabel('pieces').fill('20')
  await page.getByLabel('wire', { exact: true }).selectOption({ label: STEEL })
  await page.getByRole('button', { name: 'Reckon it' }).click()
  await expect(page.getByText('proposed: spool 2.')).toBeVisible({ timeout: 20_000 })
  await page.getByRole('button', { name: 'Lay them as proposed' }).click()
  const second = page.getByRole('group', { name: 'spool 2' })
  await expect(second.getByText('ladder rungs')).toBeVisible()
  await expect(second.getByText(/finishes/)).toBeVisible()
  // Dragged to the full one.
  await page.getByRole('button', { name: /more spool/ }).click()
  const goal = page.getByRole('group', { name: 'spool 1' })
  await dragTo(page, second.locator('.job-bar'), goal)
  await expect(goal.getByText('ladder rungs')).toBeVisible()
  await page.getByRole('button', { name: 'welded' }).click()
  await page.getByLabel(/ladder rungs: wire it took/).fill('0.7')
  await page.getByRole('button', { name: 'Welded', exact: true }).click()
  await expect(page.getByRole('heading', { name: /No job waits for wire/ })).toBeVisible()
})
