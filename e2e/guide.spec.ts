import { openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { UNTOLD_FAMILY } from '@core/rightparts/untold.ts'
import { apiOf, asOwner, expect, startShop, test, type Page, type Shop } from './fixtures.ts'

/** Doing it right, on a phone at the booth, in a shop set up by hand: a liner job, guides under two schools, what follows. */
let shop: Shop
let fit: FitShop
test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async ({ browser }) => {
  test.setTimeout(120_000)
  shop = await startShop(false)
  const page = await browser.newPage()
  await asOwner(page, shop)
  const api = apiOf(page, shop)
  fit = await openFitShop(api, 'A1–A4')
  const kelp = fit.shop.families.find((f) => f.name === 'Kelp')
  const known = { ...UNTOLD_FAMILY, ...kelp?.fit, seatDepthMm: 18, nozzleStyle: 'push-on', plug: 'keyed' }
  await api.post('/shop/family', { key: 'journey-kelp-1', id: kelp?.id, name: 'Kelp', fit: known })
  await page.close()
})
test.afterAll(() => shop.end())

const gun = (name: string) => `/gun/${fit.ids.get(name) ?? ''}`
const liner = (name: string) => `/liner?gun=${fit.ids.get(name) ?? ''}`
const guide = (name: string, key: string) => `/guide?gun=${fit.ids.get(name) ?? ''}&do=${key}`
const main = (page: Page) => page.locator('.step-keys .key-chalk').first()
/** Goes on with the key in front until a step begins with these words. */
async function goTo(page: Page, words: string): Promise<string[]> {
  const seen: string[] = []
  for (let i = 0; i < 40; i++) {
    const step = await page.locator('.step-do').first().innerText()
    if (step.startsWith(words)) return seen
    seen.push(step)
    expect((await main(page).boundingBox())?.height).toBeGreaterThanOrEqual(88)
    await main(page).click()
  }
  throw new Error(`no step begins with "${words}": ${seen.join(' | ')}`)
}
const measure = async (page: Page, text: string) => {
  await page.getByRole('textbox').fill(text)
  await page.getByRole('button', { name: 'That is what it measures' }).click()
}

test('a liner, from the order to the closing test, by somebody who never cut one', async ({ page }) => {
  test.setTimeout(120_000)
  await asOwner(page, shop, gun('A1'))
  await page.getByRole('button', { name: 'cable' }).click()
  await page.getByRole('button', { name: /^liner/ }).click()
  await page.getByRole('link', { name: 'liner job' }).click()
  await expect(page.getByText('Wants a liner of at least 4.34 m.')).toBeVisible()
  await expect(page.getByText('18 mm stand out of the neck when it is right', { exact: false })).toBeVisible()
  await page.getByRole('button', { name: 'Begin' }).click()
  const seen = await goTo(page, 'Pull the old liner out')
  expect(seen[0]).toBe('Power off at the machine.')
  const at = (words: string) => seen.findIndex((s) => s.startsWith(words))
  expect(at('Set screw out')).toBeLessThan(at('Diffuser off'))
  expect(at('Wind the wire back')).toBeLessThan(at('Loosen the gun'))
  await page.getByRole('button', { name: 'coils bunched' }).click()
  await page.getByRole('button', { name: 'near the feeder' }).click()
  await page.getByRole('button', { name: 'That is what it shows' }).click()
  await page.getByRole('button', { name: 'Skip' }).click()
  await goTo(page, 'Liner in from the rear')
  await page.getByRole('button', { name: 'It sticks' }).click()
  await page.getByRole('button', { name: 'in the middle' }).click()
  await page.getByRole('button', { name: 'Kinked' }).click()
  await expect(page.getByText('Kinked is scrap', { exact: false })).toBeVisible()
  await page.getByRole('button', { name: 'Another liner' }).click()
  await goTo(page, 'Liner in from the rear')
  await page.getByRole('button', { name: 'It glided in' }).click()
  await goTo(page, 'Press on the liner’s end')
  await measure(page, '48')
  await expect(page.getByText('Cut 27 mm off, no more.')).toBeVisible()
  // A call, an empty battery: the page is loaded anew, and the job stands where it stood.
  await page.reload()
  await expect(page.getByText('Cut 27 mm off, no more.')).toBeVisible()
  await page.getByRole('button', { name: '27 mm are off' }).click()
  await measure(page, '24.6')
  await expect(page.getByText('Nothing more is cut', { exact: false })).toBeVisible()
  await page.getByRole('button', { name: 'Measure again' }).click()
  await measure(page, '21.2')
  await page.getByRole('button', { name: '3.2 mm are off' }).click()
  await page.getByRole('button', { name: 'Square, no burr' }).click()
  const after = await goTo(page, 'Why did the old liner')
  expect(after.some((s) => s.startsWith('Free feed without a jerk'))).toBe(true)
  await page.getByRole('button', { name: 'kinked' }).click()
  await expect(page.getByRole('heading', { name: 'A1' })).toBeVisible()
  const done = page.getByLabel('What was done')
  await expect(done).toContainText('Liner cut: 18 mm left.')
  await expect(done).toContainText('Old liner: coils bunched')
  await expect(done).toContainText('New liner stuck and kinked')
  await expect(page.getByLabel('What follows')).toContainText('When it has run a little')
  await page.goto(`${shop.url}${liner('A1')}`)
  await expect(page.getByText('18 mm left standing out', { exact: false })).toBeVisible()
  await expect(page.getByText('1 of 2 new liners were spoiled', { exact: false })).toBeVisible()
})

test('the same guide under two schools, and in the lead’s own words', async ({ page }) => {
  await asOwner(page, shop, guide('A2', 'liner'))
  const sheet = page.locator('.guide-steps')
  await expect(sheet).toContainText('Blow the empty cable out')
  await expect(sheet).toContainText('Power off at the machine.')
  const api = apiOf(page, shop)
  const choose = (code: string, option: string) =>
    api.post('/houserule', { key: `journey-${code}-${option}`, code, scopeType: 'site', scopeKey: '*', option })
  await choose('D01', 'never')
  await choose('D11', 'unplug')
  await choose('D10', 'on')
  await page.reload()
  await expect(sheet).toContainText('Power off and unplugged.')
  await expect(sheet).not.toContainText('Blow the empty cable out')
  await expect(sheet).toContainText('end rounded, the tip is on')
  for (const [code, option] of [
    ['D01', 'emptyTube'],
    ['D11', 'twoStates'],
    ['D10', 'off'],
  ] as const)
    await choose(code, option)
  await page.goto(`${shop.url}${guide('A2', 'tip')}`)
  await page.getByRole('button', { name: 'say steps in our own words' }).click()
  const tipOn = page.getByRole('listitem').filter({ hasText: 'on over the wire' })
  await tipOn.getByRole('button', { name: 'in our own words' }).click()
  await page.getByLabel('in your own words').fill('As you close a jam jar.')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(tipOn).toContainText('As you close a jam jar.')
})

test('a tip by the list: logged with why it came out; a follow-up and a near miss in two taps', async ({ page }) => {
  await asOwner(page, shop, guide('A3', 'rolls'))
  await page.getByRole('button', { name: 'Step by step' }).click()
  await goTo(page, 'Rolls: why did the old one')
  await page.getByRole('button', { name: 'worn', exact: true }).click()
  await expect(page.getByLabel('What was done')).toContainText('Rolls changed')
  await page.getByRole('button', { name: 'tension is set' }).click()
  await expect(page.getByRole('button', { name: 'tension is set' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Near miss' }).click()
  await page.getByRole('button', { name: 'spool let go' }).click()
  await expect(page.getByLabel('What was done')).toContainText('Near miss: spool let go.')
})

test('every guide prints on one page', async ({ page }) => {
  test.setTimeout(180_000)
  await asOwner(page, shop)
  const { body } = await apiOf(page, shop).get<{ guides: { key: string }[] }>(
    `/guide?stationId=${fit.ids.get('A4') ?? ''}`,
  )
  expect(body.guides.length).toBeGreaterThan(8)
  for (const { key } of body.guides) {
    const url = `${shop.url}/api/print/guide.pdf?stationId=${fit.ids.get('A4') ?? ''}&guide=${key}`
    const pdf = (await (await page.request.get(url)).body()).toString('latin1')
    expect(pdf.startsWith('%PDF'), key).toBe(true)
    expect(pdf.match(/\/Type \/Page\b/g)?.length, key).toBe(1)
  }
})
