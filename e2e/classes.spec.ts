import { HAND_ITEM_KEYS } from '@core/classes/items.ts'
import { openFitShop } from '@server/testing/fitshop.ts'
import { apiOf, asOwner, expect, nowMs, sound, startShop, test, type Shop, key } from './fixtures.ts'

/** A training shop of twelve booths made from nothing: groups, a calendar, twelve booths looked at before class, a lesson, a card, a quiz. */
let shop: Shop
const wall = (ms: number) => new Date(ms).toISOString().slice(11, 16)
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async ({ browser }) => {
  test.setTimeout(120_000)
  shop = await startShop(false)
  const page = await browser.newPage()
  await asOwner(page, shop)
  await openFitShop(apiOf(page, shop), 'T1–T12', { classKey: 'training', placeWord: 'booth' })
  await page.request.post(`${shop.url}/api/shop/site`, {
    headers: { 'x-idle-spool': '1' },
    data: { key: 'school-zone-1', name: 'School', zone: 'UTC', units: 'metric', currency: 'EUR' },
  })
  await page.close()
})
test.afterAll(() => shop.end())

test('a group and its classes are said on the screen, and what falls on what is told', async ({ page }) => {
  test.setTimeout(90_000)
  await asOwner(page, shop, '/classes')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('No group yet')
  for (const [name, booths] of [
    ['Reed', 12],
    ['Sedge', 2],
  ] as const) {
    await page.goto(`${shop.url}/groups?new=1`)
    await page.getByLabel('Name of the group').fill(name)
    for (let n = 1; n <= booths; n++) await key(page, `T${n}`).click()
    await key(page, 'Keep it').click()
    await expect(key(page, new RegExp(`^${name}`))).toBeVisible()
  }
  // Named where a code belongs: refused in words, nothing lost.
  await key(page, /^Sedge/).click()
  await page.getByLabel('Code at T1').fill('Johanna')
  await key(page, 'Keep it').click()
  await expect(page.getByRole('alert')).toContainText('could be a name')
  await page.getByLabel('Code at T1').fill('S1')
  await key(page, 'Keep it').click()

  const add = async (group: string, from: number, to: number) => {
    await page.goto(`${shop.url}/calendar?new=1`)
    await page.getByLabel('Called').fill(`${group} class`)
    await page.getByLabel('Group').selectOption({ label: group })
    await page.getByLabel('From', { exact: true }).fill(wall(from))
    await page.getByLabel('To', { exact: true }).fill(wall(to))
    for (const day of ['Sat', 'Sun']) await key(page, day).click()
    await key(page, 'Keep it').click()
  }
  const hour = 3_600_000
  await add('Reed', nowMs() + 10 * 60_000, nowMs() + hour)
  await expect(key(page, /^Reed class/).first()).toBeVisible()
  await add('Sedge', nowMs() + 20 * 60_000, nowMs() + hour)
  await expect(page.getByRole('alert')).toContainText('T1, T2 are')
  await key(page, 'I have seen it').click()
  await sound(page, 'dark')
  // Off the calendar again: it is Reed’s hour.
  await page.getByRole('region', { name: 'What comes again' }).getByRole('button', { name: 'Sedge class' }).click()
  await key(page, 'it comes no more').click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('5 classes these days')
})

test('twelve booths are looked at between two classes, in a tap or two each', async ({ page }) => {
  test.setTimeout(120_000)
  await page.setViewportSize({ width: 390, height: 844 })
  await asOwner(page, shop, '/classes')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('12 booths, none looked at')
  await page.getByRole('link', { name: 'look', exact: true }).first().click()
  let taps = 0
  const tap = async (name: string) => {
    taps++
    await key(page, name).click()
  }
  for (let n = 1; n <= 12; n++) {
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(`T${n}`)
    if (n === 3) {
      await tap('Half out')
      await tap('Not on')
      await page
        .getByRole('listitem')
        .filter({ hasText: 'Work clamp' })
        .getByRole('button', { name: 'Still so' })
        .click()
      taps++
      await sound(page, 'light')
      await tap('The rest is right')
    } else await tap('All as it should be')
  }
  // Four taps more at the one where something was wrong: a booth is a tap, and half a minute of looking.
  expect(taps).toBe(11 + 4)
  await expect(page.getByRole('heading', { level: 1 })).toContainText(
    'All 12 looked at, two things found, one still so',
  )
  await expect(page.getByText('11 of 12 fit to give out. T3: work clamp not on.')).toBeVisible()
  expect(HAND_ITEM_KEYS).toHaveLength(7)
})

test('a lesson is shown and noted; a card takes own words; a quiz is answered to its end', async ({ page }) => {
  test.setTimeout(90_000)
  await asOwner(page, shop, '/lesson?item=gunHome')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Gun in its socket')
  await expect(page.getByText('Power off. Out, look at the O-rings')).toBeVisible()
  await key(page, 'Taught to Reed').click()
  await expect(page.getByText('Noted. What is found before class')).toBeVisible()
  await page.goto(`${shop.url}/classes`)
  await expect(page.getByText(/Too early to tell/)).toBeVisible()

  await page.goto(`${shop.url}/pairs?pair=tipTight`)
  await key(page, 'our own words, or wrong here').click()
  await page.getByLabel('A picture that stays in the head').fill('A jam jar, not a wheel nut.')
  await key(page, 'Keep it: I have looked it over').click()
  await expect(page.getByText('A jam jar, not a wheel nut.')).toBeVisible()
  await expect(page.getByText(/looked over by Oda/)).toBeVisible()
  const picture = await page.request.get(`${shop.url}/api/print/pairs.pdf?pair=tipTight`)
  expect(picture.headers()['content-type']).toContain('pdf')

  await page.goto(`${shop.url}/quiz?seed=4`)
  for (let n = 1; n <= 10; n++) {
    await expect(page.getByText(`${n} of 10`)).toBeVisible()
    await page.getByRole('group', { name: 'Answers' }).getByRole('button').first().click()
    await key(page, 'Go on').click()
  }
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Kept for the group; nobody is named')
})
