import { ALUMINIUM, openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { apiOf, asOwner, expect, startShop, test, type Shop } from './fixtures.ts'

/** How guns are built, looked at and changed: on a phone at the booth, in a shop set up by hand. */
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
  fit = await openFitShop(apiOf(page, shop), 'A1–A4')
  await page.close()
})
test.afterAll(() => shop.end())

const gun = (name: string) => `/gun/${fit.ids.get(name) ?? ''}`

test('first look of a bay: one tap a gun, a tap and a choice for what differs, and what is built wrong', async ({
  page,
}) => {
  await asOwner(page, shop)
  await page.getByRole('link', { name: 'look at how they are built' }).click()
  await page.getByRole('button', { name: /Begin at A1/ }).click()
  await page.getByRole('button', { name: 'As the bay' }).click()
  await expect(page.getByRole('heading', { name: 'A2' })).toBeVisible()
  await expect(page.getByRole('status').filter({ hasText: 'A1: fits.' })).toBeVisible()
  await page.getByRole('button', { name: /^Tip/ }).click()
  await page.getByRole('button', { name: 'T12', exact: true }).click()
  await page.getByRole('button', { name: 'That is what is on it' }).click()
  await expect(page.getByRole('heading', { name: 'A3' })).toBeVisible()
  await expect(page.getByText('A2: The tip is for 1.2 mm, the wire is 0.9 mm.')).toBeVisible()
  await page.getByRole('button', { name: /^Roll 2/ }).click()
  await page.getByRole('button', { name: '1.0 mm', exact: true }).click()
  await page.getByRole('button', { name: 'That is what is on it' }).click()
  await expect(page.getByRole('heading', { name: 'A4' })).toBeVisible()
  await page.getByRole('button', { name: 'Not now' }).click()
  await expect(
    page.getByRole('heading', { level: 1, name: '2 of 3 guns are built wrong. 1 not looked at.' }),
  ).toBeVisible()
  await page.getByRole('link', { name: 'A3' }).click()
  await page.getByRole('button', { name: 'Done: turn roll 2 round' }).click()
  await expect(page.getByText('Belongs together:')).toBeVisible()
})

test('a tip that does not fit is not handed out, and the page says why', async ({ page }) => {
  await asOwner(page, shop, gun('A1'))
  await page.getByRole('button', { name: 'Fetch a part' }).click()
  const part = (code: string) => page.getByLabel('a part from the shelf').selectOption(fit.part(code))
  await part('T12')
  await page.getByRole('button', { name: /Hand it out/ }).click()
  await expect(page.getByRole('alert')).toContainText('T12 does not fit this gun.')
  await expect(page.getByRole('alert')).toContainText('The tip is for 1.2 mm, the wire is 0.9 mm.')
  await part('T9')
  await page.getByRole('button', { name: /Hand it out/ }).click()
  await expect(page.getByText(/T9 fits. \d left on the shelf./)).toBeVisible()
})

test('steel to aluminium where the liner runs to the rolls: step by step with one thumb, then back', async ({
  page,
}) => {
  await asOwner(page, shop, gun('A1'))
  await page.getByRole('link', { name: 'Change wire' }).click()
  await page.getByLabel('to which wire').selectOption(fit.wire(ALUMINIUM))
  await expect(page.getByRole('listitem').filter({ hasText: 'Outlet guide: out, and kept' })).toBeVisible()
  await page.getByRole('button', { name: 'Step by step' }).click()
  const seen: string[] = []
  for (let i = 0; i < 60; i++) {
    if (await page.getByRole('button', { name: 'Log it' }).isVisible()) break
    seen.push((await page.locator('.step-do').innerText()).slice(0, 40))
    const key = page.getByRole('button', {
      name: /^(Done(, not read)?|Yes|It is isolated|It is out of the circuit|Hands and tools are clear|Eyes are covered)$/,
    })
    expect((await key.boundingBox())?.height).toBeGreaterThanOrEqual(88)
    await key.click()
  }
  expect(seen[0]).toBe('Power off at the machine.')
  const order = ['Set screw out', 'Diffuser off', 'Outlet guide out', 'Tools and hands clear', 'Lock ring on?']
  for (const step of order) expect(seen.some((s) => s.startsWith(step))).toBe(true)
  const at = (step: string) => seen.findIndex((s) => s.startsWith(step))
  expect(at('Set screw out')).toBeLessThan(at('Diffuser off'))
  expect(at('Diffuser off')).toBeLessThan(at('Tools and hands clear'))
  await page.getByRole('button', { name: 'Log it' }).click()
  await expect(page.getByText('alu 1.2', { exact: false }).first()).toBeVisible()
  await expect(page.getByText(/Outlet guide out, kept for steel: GO/)).toBeVisible()
  await expect(page.getByLabel('What was done')).toContainText('Wire changed to alu 1.2.')
})

test('several guns are changed at once from a column of Floor', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 })
  await asOwner(page, shop, '/?column=spool')
  for (const name of ['A3', 'A4']) await page.getByLabel(name, { exact: true }).check()
  await page.getByRole('link', { name: 'Change wire on 2' }).click()
  await page.getByLabel('to which wire').selectOption(fit.wire('steel 1.0'))
  await expect(page.getByRole('region', { name: 'To fetch' })).toContainText('T10')
  await page.getByRole('button', { name: 'All 2 are changed already' }).click()
  await page.getByRole('button', { name: /^Yes/ }).first().click()
  await expect(page.getByText('Logged on 2 guns.')).toBeVisible()
})
