import { openFitShop } from '@server/testing/fitshop.ts'
import { apiOf, asOwner, expect, sound, startShop, test, type Shop, key } from './fixtures.ts'

/** Robot cells of a shop made from nothing: built on the screen, necks that go round, mended on the bench; a crash put right from a phone. */
let shop: Shop
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async ({ browser }) => {
  test.setTimeout(120_000)
  shop = await startShop(false)
  const page = await browser.newPage()
  await asOwner(page, shop)
  await openFitShop(apiOf(page, shop), 'C1–C2', { classKey: 'cell', placeWord: 'cell' })
  await page.close()
})
test.afterAll(() => shop.end())

test('a cell is told how it is built, a neck goes round by way of the bench, and one more has an answer', async ({
  page,
}) => {
  test.setTimeout(90_000)
  await asOwner(page, shop, '/cells')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Nothing is open at the cells')

  // The way of the wire, length by length, and how it is made safe.
  await key(page, /^C1/).click()
  await key(page, 'how this cell is built').click()
  await page.getByLabel('wire comes from a').selectOption('drum')
  await page.getByLabel('next length is called').fill('drum to post')
  await page.getByLabel(/^long,/).fill('4')
  await page.getByLabel('quarter turns in it').fill('2')
  await key(page, 'Add it').click()
  await page.getByLabel(/tool centre off at most/).fill('0.4')
  await page.getByLabel('arc in one cycle, seconds').fill('75')
  await page.getByLabel('cycles from ream to ream').fill('8')
  await page.getByLabel('shots of anti-spatter a ream').fill('1')
  await page.getByLabel('a shot, ml').fill('1.5')
  await page.getByLabel('its tank, L').fill('1')
  await page.getByLabel(/how this cell is made safe/).fill('Key out, air dumped.')
  await key(page, 'Save').click()
  await expect(key(page, /^drum to post: not pulled yet/)).toBeVisible()
  await expect(page.getByText('Key out, air dumped.')).toBeVisible()

  // The first pull is what the next ones are compared with.
  for (const pull of ['6', '11']) {
    await key(page, /^drum to post/).click()
    await page.getByLabel(/^pull,/).fill(pull)
    await key(page, 'Keep it').click()
    await expect(page.getByLabel(/^pull,/)).toBeHidden()
  }
  await expect(page.getByText(/It pulls harder than it did through drum to post/).first()).toBeVisible()

  // Necks go round; a spare one is ready when the bench says so, and hangs.
  await key(page, /at all 2/).click()
  await page.getByLabel('number on it').fill('N9')
  await key(page, 'It lies on the bench').click()
  await key(page, /^N9/).click()
  const bench = page.getByRole('region', { name: 'N9' })
  await bench.getByRole('button', { name: 'Contact tip' }).click()
  await bench.getByLabel('which contact tip').selectOption({ label: 'T9 T9' })
  await bench.getByRole('button', { name: 'New one on' }).click()
  await bench.getByRole('button', { name: /^N9 is ready/ }).click()
  await expect(page.getByText(/Right for C1/).first()).toBeVisible()
  await expect(page.getByText(/^With one spare neck for two robots a robot/)).toBeVisible({ timeout: 30_000 })
  await key(page, /^C2/).first().click()
  await key(page, 'Another neck on').click()
  await key(page, /^N9 on/).click()
  await expect(page.getByRole('list', { name: 'To do before production' })).toContainText('Check the tool centre')

  // Reamer and sprayer beside the torch: a tap a look, the tank as found and as filled.
  await key(page, /^C1/).first().click()
  await key(page, 'reamer, cutter, sprayer').click()
  await expect(page.getByText('It is reamed every 8 cycles.', { exact: false })).toBeVisible()
  await key(page, 'A thin ring').click()
  await expect(page.getByText('Kept: a thin ring.')).toBeVisible()
  await expect(page.getByText(/told after two more looks/)).toBeVisible()
  await page.getByLabel('in the tank, L').fill('0.2')
  await page.getByLabel('filled up to, L').fill('1')
  await key(page, 'Keep it').click()
  await expect(page.getByText(/^About 1 L of anti-spatter left/)).toBeVisible()
  await sound(page)
})

test('on a phone at the guard: it hit something, tool centre read and touched up, the rest looked at, it welds', async ({
  page,
}) => {
  test.setTimeout(90_000)
  await page.setViewportSize({ width: 390, height: 844 })
  await asOwner(page, shop, '/')
  const { places } = (await apiOf(page, shop).get<{ places: { name: string; stationId: string }[] }>('/find')).body
  const stationId = places.find((p) => p.name === 'C1')?.stationId ?? ''
  await page.goto(`${shop.url}/gun/${stationId}`)
  await page.getByRole('link', { name: /Its cell/ }).click()
  await key(page, 'It hit something').click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('C1: the torch hit something. Before it welds:')
  await expect(page.getByText('Key out, air dumped.')).toBeVisible()
  await expect(key(page, /It welds again/)).toContainText('its tool centre was not checked')

  await key(page, 'Read it').click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('tool centre')
  await page.getByLabel(/found/i).first().fill('0.8')
  await page.getByLabel(/left/i).first().fill('0.1')
  await key(page, /^Keep|^Log|^Save|^Send/)
    .first()
    .click()
  for (const name of ['Neck is straight', 'Cable is good', 'Reamer goes with it']) await key(page, name).click()
  await expect(page.getByRole('list', { name: 'To do before production' })).toBeHidden()
  await key(page, 'It welds again').click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('C1: nothing is open.')
  await expect(page.getByText(/0.1 mm off as it was left; limit 0.4 mm/)).toBeVisible()
  await sound(page)
})
