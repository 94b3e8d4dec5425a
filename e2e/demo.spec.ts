import { expect, openGun, signIn, sound, startShop, test, type Shop } from './fixtures.ts'

const LEAD = { name: 'Ilse Varn', password: 'low-tide-at-six' }
let shop: Shop
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async () => {
  test.setTimeout(180_000)
  shop = await startShop(true)
})
test.afterAll(() => shop.end())

test('the demo’s planted stories can be found', async ({ page }) => {
  await signIn(page, shop, LEAD)
  await expect(page.getByRole('heading', { level: 1 })).toContainText('hands before')
  const first = page.getByRole('article').first()
  await expect(first).toHaveAccessibleName('B3')
  await expect(first).toContainText('at the liner')
  await openGun(page, 'T5')
  await expect(page.getByText('Parked.', { exact: true })).toBeVisible()
  await openGun(page, 'R2')
  await page.getByRole('button', { name: /^tip/ }).click()
  await expect(page.getByLabel('tip', { exact: true })).toContainText('Not seen')
  await openGun(page, 'A6')
  await expect(page.getByLabel('What was done')).toContainText('booked on the wrong gun')
})

test('a break is logged from Floor in two taps and the picture moves', async ({ page }) => {
  await signIn(page, shop, LEAD)
  // Opened at any hour: what is due changes over the day, a wrong part stays.
  const row = page.getByRole('article', { name: 'T3' })
  await expect(row).toContainText('The tip is for 1.2 mm')
  await page.getByRole('button', { name: 'Log on T3' }).click()
  await row.getByRole('button', { name: 'Tip changed' }).click()
  await row.getByRole('button', { name: 'Due' }).click()
  await expect(page.getByLabel('Last logged')).toContainText('Tip changed · T3')
  await expect(page.getByText('The tip is for 1.2 mm')).toHaveCount(0)
  await page.getByLabel('Last logged').getByRole('button', { name: 'Put this line away' }).click()
})

test('drawing down a column logs one act on many guns', async ({ page }) => {
  await signIn(page, shop, LEAD)
  await expect(page.locator('.strands svg').first()).toBeVisible()
  // What comes a breath later moves the lines: it stands before anything is drawn.
  await expect(page.locator('.late-line')).toBeVisible({ timeout: 60_000 })
  await page.locator('.strands svg').first().scrollIntoViewIfNeeded()
  const box = await page.locator('.strands svg').first().boundingBox()
  if (!box) throw new Error('no strands')
  const x = box.x + box.width * (9.5 / 11)
  await page.mouse.move(x, box.y + 5)
  await page.mouse.down()
  await page.mouse.move(x, box.y + 25, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByRole('heading', { name: '3 guns, nozzle' })).toBeVisible()
  await page.getByRole('button', { name: 'Nozzle cleaned' }).click()
  await expect(page.getByLabel('Last logged')).toContainText('Nozzle cleaned on 3 guns')
})

test('area and column live in the address', async ({ page }) => {
  await signIn(page, shop, LEAD)
  await page.getByRole('button', { name: 'tip', exact: true }).click()
  await expect(page).toHaveURL(/column=tip/)
  await expect(page.getByRole('heading', { name: 'tip, by life left' })).toBeVisible()
  await sound(page)
  await page.goBack()
  await page.getByRole('button', { name: /Robot cells/ }).click()
  await expect(page).toHaveURL(/area=/)
  await expect(page.getByRole('link', { name: /^Cell 1:/ })).toBeAttached()
  await expect(page.getByRole('link', { name: /^A1:/ })).not.toBeAttached()
})

test('on a phone: the gun by its number, two taps, at 88 pixels', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })
  const page = await context.newPage()
  await page.goto(`${shop.url}/sign-in`)
  await page.getByLabel('Name').fill(LEAD.name)
  await page.getByLabel('Password').fill(LEAD.password)
  await page.getByRole('button', { name: 'Sign in' }).tap()
  await page.getByRole('button', { name: 'Find a gun' }).tap()
  await page.getByLabel('The number on the gun').fill('A1')
  await page.getByRole('button', { name: /^A1\s*booth/ }).tap()
  const key = page.getByLabel('Log', { exact: true }).getByRole('button', { name: 'Nozzle cleaned' })
  expect((await key.boundingBox())?.height).toBeGreaterThanOrEqual(88)
  await sound(page)
  await key.tap()
  await expect(page.getByLabel('Last logged')).toContainText('Nozzle cleaned · A1')
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await context.close()
})

test('the theme is the device’s own, threads of two families are told, and ? says what the wire says', async ({
  page,
}) => {
  await signIn(page, shop, LEAD)
  await page.getByRole('button', { name: 'light' }).click()
  await openGun(page, 'B5')
  await page.reload()
  await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'light')
  await expect(page.getByText('parts of different families spoil each other', { exact: false })).toBeVisible()
  await page.getByRole('button', { name: 'dark' }).click()
  await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'dark')
  await page.keyboard.press('?')
  await expect(page.getByRole('heading', { name: 'What the wire says' })).toBeVisible()
})

test('without a link it says so, and comes back by itself', async ({ page }) => {
  test.setTimeout(90_000)
  await signIn(page, shop, LEAD)
  await expect(page.getByRole('article').first()).toBeVisible()
  await shop.stop()
  await expect(page.getByText(/No link since/)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('article').first()).toBeVisible()
  await shop.start()
  await expect(page.getByText(/No link since/)).toBeHidden({ timeout: 30_000 })
})
