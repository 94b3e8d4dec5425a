import { expect, openGun, openNewShop, startShop, test, withPlaces, type Shop } from './fixtures.ts'

/** A photo of what came off, taken where the wireless is weak. */
let shop: Shop
test.beforeAll(async () => {
  shop = await startShop(false)
})
test.afterAll(() => shop.stop())

test('a photo is kept with its part; without a link it waits on the device, outlives the page, and goes by itself', async ({
  page,
}) => {
  await openNewShop(page, shop)
  await withPlaces(page, shop, 'A1–A2')
  await openGun(page, 'A1')
  await page.getByRole('button', { name: /^tip/ }).first().click()
  const picture = 'e2e/fixtures/a1-tip-changed.png'
  await page.getByLabel('a photo').setInputFiles(picture)
  await expect(page.getByRole('button', { name: /Photo of/ })).toHaveCount(1)

  await page.route('**/api/photo?**once=**', (route) => route.abort())
  await page.getByLabel('a photo').setInputFiles(picture)
  await expect(page.getByText('one kept here until there is a link')).toBeVisible()
  await page.reload()
  await page.getByRole('button', { name: /^tip/ }).first().click()
  await expect(page.getByText('one kept here until there is a link')).toBeVisible()

  await page.unroute('**/api/photo?**once=**')
  await page.evaluate(() => dispatchEvent(new Event('online')))
  await expect(page.getByRole('button', { name: /Photo of/ })).toHaveCount(2)
  await expect(page.getByText(/kept here/)).toHaveCount(0)
  await page
    .getByRole('button', { name: /Photo of/ })
    .first()
    .click()
  await expect(page.getByAltText('The photo, large')).toBeVisible()
  await page.getByRole('button', { name: 'take it back' }).click()
  await expect(page.getByRole('button', { name: /Photo of/ })).toHaveCount(1)
})
