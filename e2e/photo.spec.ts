import { asOwner, expect, openGun, openNewShop, startShop, test, withPlaces, type Page, type Shop } from './fixtures.ts'

/** A photo of what came off, taken where the wireless is weak. */
let shop: Shop
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async () => {
  shop = await startShop(false)
})
test.afterAll(() => shop.end())

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

/** A short film as a browser makes one: a square that walks. */
const film = (page: Page): Promise<number[]> =>
  page.evaluate(async () => {
    const canvas = Object.assign(document.createElement('canvas'), { width: 160, height: 120 })
    const context = canvas.getContext('2d')
    const recorder = new MediaRecorder(canvas.captureStream(25), { mimeType: 'video/webm' })
    const parts: Blob[] = []
    recorder.ondataavailable = (e) => parts.push(e.data)
    const isOver = new Promise((done) => (recorder.onstop = done))
    recorder.start()
    for (let i = 0; i < 30; i++) {
      context?.fillRect(i * 5, 20, 20, 20)
      await new Promise((r) => setTimeout(r, 40))
    }
    recorder.stop()
    await isOver
    return [...new Uint8Array(await new Blob(parts).arrayBuffer())]
  })

test('a film of a stop becomes a clip: pictures on one photo, played and stepped in the line of the log', async ({
  page,
}) => {
  await asOwner(page, shop)
  await withPlaces(page, shop, 'C1')
  await openGun(page, 'C1')
  await page.goto(page.url().replace('/gun/', '/down?gun='))
  await page.getByRole('button', { name: 'It’s down: let minutes run' }).click()
  await page.getByRole('button', { name: 'Jerks' }).click()
  await page.getByRole('button', { name: 'Wire jerks though the rolls turn evenly' }).click()
  const buffer = Buffer.from(await film(page))
  await page.getByLabel('clip of it').setInputFiles({ name: 'jerks.webm', mimeType: 'video/webm', buffer })
  await page.getByRole('button', { name: /Clip of/ }).click()
  const picture = page.getByRole('img', { name: /The clip, picture \d+ of ([5-9]|1\d)$/ })
  await expect(picture).toBeVisible()
  await page.getByRole('button', { name: 'one on' }).click()
  await page.getByRole('button', { name: 'one on' }).click()
  await expect(page.getByRole('button', { name: 'play' })).toBeVisible()
  expect(await picture.evaluate((e) => getComputedStyle(e).backgroundImage)).toContain('/api/photo/pic_')
})
