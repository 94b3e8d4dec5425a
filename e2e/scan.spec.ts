import { expect, openGun, openNewShop, startShop, test, withPlaces, type Page, type Shop } from './fixtures.ts'

/** Codes on paper: scanned by a scanner that types, opened by a phone's camera, read from a photo. */
let shop: Shop
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async () => {
  shop = await startShop(false)
})
test.afterAll(() => shop.end())

/** What a scanner that types sends: every key in one breath, then Enter. */
const scanned = (page: Page, code: string) =>
  page.evaluate((text) => {
    for (const key of [...text, 'Enter'])
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
  }, code)

test('a scan logs without a tap, a photo is read, and a link does it once', async ({ page }) => {
  await openNewShop(page, shop)
  await withPlaces(page, shop, 'A1–A3')
  await openGun(page, 'A2')

  // A scanner types a whole code in one breath; its letters are no shortcuts.
  await scanned(page, `${shop.url}/go/A2/nozzle-cleaned`)
  await expect(page.getByLabel('Last logged')).toContainText('Nozzle cleaned · A2')
  await expect(page.getByLabel('What was done')).toContainText('Nozzle cleaned.')
  await expect(page.getByText(/Why did the old one come out/)).toHaveCount(0)
  await scanned(page, `${shop.url}/go/A2/nozzle-cleaned`)
  await expect(page.getByRole('alert')).toContainText('Scanned a moment ago on A2')
  await page.getByRole('alert').getByRole('button', { name: 'ok' }).click()

  await page.goto(`${shop.url}/scan`)
  await page.getByLabel('or a photo of the code').setInputFiles('e2e/fixtures/a1-tip-changed.png')
  await expect(page.getByRole('status').filter({ hasText: 'Tip changed · A1.' })).toBeVisible()

  await page.goto(`${shop.url}/go/A3/down`)
  await expect(page.getByRole('heading', { name: 'It’s down · A3.' })).toBeVisible()
  await page.reload()
  await expect(page.getByRole('heading', { name: 'It’s down · A3.' })).toBeVisible()
  await page.getByRole('link', { name: 'open A3' }).click()
  await expect(page.getByLabel('What was done').getByText('Down.')).toHaveCount(1)
})

test('booth cards come as a PDF from Our shop', async ({ page }) => {
  await page.request.post(`${shop.url}/api/people/sign-in`, {
    headers: { 'x-idle-spool': '1' },
    data: { name: 'Oda', password: 'ten letters or more' },
  })
  await page.goto(`${shop.url}/shop?part=prints`)
  await expect(page.getByText('codes printed now open only there')).toBeVisible()
  const link = await page.getByRole('link', { name: /3 cards$/ }).getAttribute('href')
  const answer = await page.request.get(`${shop.url}${link ?? ''}`)
  expect(answer.headers()['content-type']).toBe('application/pdf')
  expect((await answer.body()).subarray(0, 5).toString()).toBe('%PDF-')
})

test('a spool booked in, put on, weighed: its label opens it', async ({ page }) => {
  await page.request.post(`${shop.url}/api/people/sign-in`, {
    headers: { 'x-idle-spool': '1' },
    data: { name: 'Oda', password: 'ten letters or more' },
  })
  await page.goto(`${shop.url}/shop?part=parts`)
  await page.getByRole('button', { name: 'a new wire' }).click()
  await page.getByLabel('name', { exact: true }).last().fill('solid 1.0')
  await page.getByLabel('size').fill('1.0')
  await page.getByLabel('kg an empty one weighs').fill('0,9')
  await page.getByRole('button', { name: 'Save' }).last().click()
  await page.getByRole('link', { name: 'Spools' }).click()
  await page.getByLabel('wire', { exact: true }).selectOption('solid 1.0')
  await page.getByLabel('how many').fill('2')
  await page.getByRole('button', { name: 'Book in' }).click()
  await expect(page.getByText('Write 1, 2 on their flanges.')).toBeVisible()
  await page.getByRole('button', { name: /^A1/ }).click()
  await page.getByLabel('another one on').selectOption({ index: 1 })
  await page.getByRole('button', { name: 'Put on' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Kept.' })).toBeVisible()
  await page.getByLabel(/on the scale/).fill('9.4')
  await page.getByRole('button', { name: 'Read' }).click()
  await expect(page.getByText(/Kept: about 8.5 kg left/)).toBeVisible()
  await page.goto(`${shop.url}/go/spool/2`)
  await expect(page.getByRole('heading', { name: 'Spool 2' })).toBeVisible()
})
