import { USUAL_BOOTHS } from '@core/practice/setups.ts'
import { type GroupsAnswer } from '@contract/classes.ts'
import { type SkillAnswer } from '@contract/practice.ts'
import { openFitShop } from '@server/testing/fitshop.ts'
import {
  apiOf,
  asOwner,
  dragTo,
  expect,
  readyForOffline,
  sound,
  startShop,
  test,
  type Page,
  type Shop,
  key,
  heading,
} from './fixtures.ts'

/** The practice booth of a training shop: drills set for a group, played on a phone with a link and without, found again as skill by fault. */
let shop: Shop
test.use({ serviceWorkers: 'allow' })
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async ({ browser }) => {
  test.setTimeout(120_000)
  shop = await startShop(false)
  const page = await browser.newPage()
  await asOwner(page, shop)
  await openFitShop(apiOf(page, shop), 'T1–T4', { classKey: 'training', placeWord: 'booth' })
  await page.close()
})
test.afterAll(() => shop.end())

const skills = async (page: Page) => (await apiOf(page, shop).get<SkillAnswer>('/practice/skill')).body.skills

/** A nozzle that is clogged, found and cleaned the right way. */
async function findClogged(page: Page) {
  await expect(heading(page)).toHaveText('Pinholes in the weld.')
  await key(page, 'Front of the gun').last().click()
  await key(page, /^Look into the nozzle/).click()
  await expect(page.getByText('A good part is closed').first()).toBeVisible()
  await key(page, /^Clean the nozzle/).click()
  await key(page, /^Pull it straight off/).click()
  await expect(heading(page)).toContainText('Nobody does it faster.', { timeout: 20_000 })
  await expect(page.getByText('nozzle clogged')).toBeVisible()
}

test('an instructor sets drills for a group; on a phone one is played from its complaint to its debrief; skill by fault is seen', async ({
  page,
}) => {
  test.setTimeout(120_000)
  await asOwner(page, shop)
  const api = apiOf(page, shop)
  const id = (await api.get<{ guns: { stationId: string }[] }>('/floor')).body.guns[0]?.stationId ?? ''
  const group = { id: null, name: 'Reed', level: 'new', size: 4, isActive: true }
  await api.post('/classes/group', {
    key: 'drill-group',
    ...group,
    booths: [{ stationId: id, wireId: null, learner: null }],
  })
  await page.goto(`${shop.url}/practice`)
  await key(page, 'Set drills').click()
  await key(page, /^Set 0 drills/).click()
  await expect(page.getByRole('alert')).toContainText('Give it a name')
  await page.getByLabel('Name').fill('Tuesday')
  await page.getByLabel('For', { exact: true }).selectOption({ label: 'Reed' })
  await page.getByLabel('In the booth').selectOption({ label: USUAL_BOOTHS[0]!.name })
  await page.getByLabel('Nozzle clogged').check()
  await key(page, 'Set one drill').click()
  await expect(page.getByText('one drill for Reed, played 0 times')).toBeVisible()
  await sound(page, 'dark')

  await page.setViewportSize({ width: 390, height: 844 })
  await key(page, /^Tuesday/).click()
  await findClogged(page)
  await expect(page.getByRole('img', { name: 'Your looks along the wire, in their order' })).toBeVisible()
  await sound(page, 'dark')
  await expect
    .poll(async () => (await skills(page)).map((s) => [s.fault, s.well, s.tried]))
    .toEqual([['nozzleClogged', 1, 1]])
  await page.goto(`${shop.url}/practice`)
  await expect(page.getByText('one drill for Reed, played 1 time, 1 of them well')).toBeVisible()
  await expect(page.getByRole('region', { name: 'What is found least' })).toContainText('Nozzle clogged')
  const { groups } = (await api.get<GroupsAnswer>('/classes/groups')).body
  expect(groups.map((g) => g.name)).toEqual(['Reed'])
})

test('what is done wrongly has its own consequence, and asking costs', async ({ page }) => {
  await asOwner(page, shop, '/practice')
  await key(page, /^Tuesday/).click()
  await expect(heading(page)).toHaveText('Pinholes in the weld.')
  await sound(page, 'dark')
  await key(page, /^Ask somebody/).click()
  await expect(page.getByText('Look into the nozzle.')).toBeVisible()
  await key(page, 'Front of the gun').first().click()
  await key(page, /^Clean the nozzle/).click()
  await key(page, /^Twist it off/).click()
  await expect(page.getByText('sits loose over the gas holes now')).toBeVisible()
  await expect(heading(page)).toHaveText('Pinholes in the weld.')
  await page.reload()
  // It goes on where it was.
  await expect(page.getByText('sits loose over the gas holes now')).toBeVisible()
  await key(page, 'Front of the gun').first().click()
  await key(page, /^Feel the insulator/).click()
  await expect(page.getByText('Loose over the holes').first()).toBeVisible()
  await key(page, /^Tighten it by finger/).click()
  await expect(heading(page)).toContainText('In the best order it takes', { timeout: 20_000 })
  await key(page, 'The same once more').click()
  await expect(heading(page)).toHaveText('Pinholes in the weld.')
  await key(page, /^Pull the trigger/).click()
  await key(page, /^Call for help/).click()
  await expect(heading(page)).toContainText('Not found.', { timeout: 20_000 })
})

test('two minutes for the hands: one thing wrong is named, a liner is cut, a knob comes into its window', async ({
  page,
}) => {
  await asOwner(page, shop, '/practice')
  await key(page, /^One thing wrong/).click()
  await expect(heading(page)).toContainText('What does not fit?')
  await page.getByRole('group', { name: 'Built so' }).getByRole('button').first().click()
  await expect(page.getByRole('status')).toContainText('wants')
  await page.goto(`${shop.url}/practice/hands?what=change`)
  await page.getByRole('group', { name: 'To change' }).getByRole('button').first().click()
  await key(page, 'That is all').click()
  await key(page, 'Now the order').click()
  await expect(heading(page)).toContainText('in what order')
  // The spool before the wire is off it: drawn to its place.
  const order = [/^Power off at/, /^Nozzle off/, /^Old spool/, /^Arm open/, /^All four/, /^Gun out/]
  const rest = [/^New spool/, /^Wire through/, /^Power on/, /^Tension/, /^Power off again/]
  for (const act of [...order, ...rest]) if ((await key(page, act).count()) > 0) await key(page, act).first().click()
  await key(page, 'That is the order').click()
  await expect(page.getByRole('status').filter({ hasText: 'cannot be number' })).toContainText(
    'a wire still runs through',
  )
  await key(page, 'Put it right').click()
  const row = (act: string) => page.getByRole('listitem').filter({ hasText: act })
  await dragTo(page, row('Arm open').locator('.order-grip'), row('Old spool'))
  await expect(page.getByRole('listitem').nth(2)).toContainText('Arm open')
  // A click that comes with the letting go is part of the drag.
  await expect(async () => {
    await key(page, 'That is the order').click({ timeout: 2_000 })
    await expect(heading(page)).toHaveText('It can be done so.', { timeout: 2_000 })
  }).toPass()
  await page.goto(`${shop.url}/practice/hands?what=trim`)
  // Drawn first: a page that is only coming has no key to count.
  await expect(key(page, 'Cut 30 mm')).toBeVisible()
  for (let n = 0; n < 8 && (await key(page, 'Cut 30 mm').count()) > 0; n++) await key(page, 'Cut 30 mm').click()
  await expect(heading(page)).toHaveText('Too short: this liner is scrap.')
  await page.goto(`${shop.url}/practice/hands?what=tension`)
  for (let n = 0; n < 30; n++) {
    await key(page, 'Feed against the block').click()
    const felt = await page.getByRole('status').innerText()
    if (felt.includes('clean pigtail')) break
    await key(page, /stalls|slips/.test(felt) ? '+ 0.25' : '− 0.25').click()
  }
  await key(page, 'That is it').click()
  await expect(heading(page)).toContainText('Right, after')
})

test('without a link it is played to its end, kept on the device, and arrives once', async ({ page }) => {
  test.setTimeout(120_000)
  await page.setViewportSize({ width: 390, height: 844 })
  await asOwner(page, shop, '/practice')
  await readyForOffline(page)
  // Opened once while there is a link: that is what this device holds.
  await page.reload()
  await expect(key(page, /^Tuesday/)).toBeVisible()
  await key(page, /^Tuesday/).click()
  await expect(heading(page)).toHaveText('Pinholes in the weld.')
  await page.goto(`${shop.url}/practice`)
  const before = (await skills(page)).find((s) => s.fault === 'nozzleClogged')?.tried ?? 0
  await shop.stop()
  await page.reload()
  await key(page, /^Tuesday/).click()
  await findClogged(page)
  await page.waitForTimeout(1500)
  await shop.start()
  await page.evaluate(() => dispatchEvent(new Event('online')))
  await expect
    .poll(async () => (await skills(page)).find((s) => s.fault === 'nozzleClogged')?.tried, { timeout: 30_000 })
    .toBe(before + 1)
})
