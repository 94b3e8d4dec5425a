import { apiOf, expect, openGun, signIn, startShop, test, type Shop } from './fixtures.ts'

/** How long parts last, and when changing is cheapest: a lead reads the page, slides the blade, makes it the rule, and Floor moves. */
const LEAD = { name: 'Ilse Varn', password: 'low-tide-at-six' }
let shop: Shop
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async () => {
  test.setTimeout(180_000)
  shop = await startShop(true)
})
test.afterAll(() => shop.end())

test('a lead slides the blade, makes it the rule, and Floor moves by what was foretold', async ({ page }) => {
  test.setTimeout(400_000)
  await signIn(page, shop, LEAD)
  const lead = apiOf(page, shop)
  const opened = async () =>
    (await lead.get<{ guns: { name: string; rank: number | null }[] }>('/floor')).body.guns
      .filter((g) => g.rank !== null)
      .map((g) => g.name)
  const before = await opened()
  await page.goto(`${shop.url}/life?kind=tip&where=class:booth`)
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/^Half of the tips in booths are gone by/, {
    timeout: 120_000,
  })
  const rules = page.getByRole('region', { name: 'House rules in money' })
  await expect(rules.getByRole('row', { name: /Least cost/ })).toContainText('saves')
  const who = page.getByRole('region', { name: 'More than their share' })
  await expect(who.getByRole('link', { name: /^A7 goes through/ })).toBeVisible()
  await page.getByRole('slider', { name: 'Change at' }).focus()
  await page.keyboard.press('Home')
  await expect(page.locator('.life-under')).toContainText('Changed at')
  await page.getByRole('button', { name: 'Least cost' }).click()
  await expect(page.locator('.life-under')).toContainText('Changed at')
  await page.getByRole('button', { name: 'Make it the rule …' }).click()
  const ask = page.getByRole('dialog')
  await expect(ask).toContainText('On Floor')
  await ask.getByRole('button', { name: 'Make it the rule' }).click()
  await expect(ask).toBeHidden({ timeout: 90_000 })
  await expect(rules).toContainText(/The rule now: change at .* Ilse Varn, from \d+ lives/)
  const more = (await opened()).filter((name) => !before.includes(name))
  expect(more.length).toBeGreaterThan(0)
  await page.goto(shop.url)
  for (const name of more.slice(0, 3))
    await expect(
      page
        .getByRole('article', { name, exact: true })
        .or(page.getByRole('link', { name, exact: true }))
        .first(),
    ).toBeVisible()
  // Fits are kept in the background, and read again every half minute.
  await openGun(page, more[0] ?? '')
  const gun = page.url().split('/').at(-1) ?? ''
  const isTold = async () =>
    (await lead.get<{ positions: { kindKey: string; leave: object | null }[] }>(`/gun/${gun}`)).body.positions.some(
      (p) => p.kindKey === 'tip' && p.leave !== null,
    )
  await expect.poll(isTold, { timeout: 150_000 }).toBe(true)
  await page.reload()
  await page.getByRole('row', { name: /^tip/ }).getByRole('link').click()
  await expect(page.locator('.life-marked')).toBeAttached()
})

test('two nozzles side by side, a word taken, a try-out dealt out', async ({ page }) => {
  test.setTimeout(240_000)
  await signIn(page, shop, LEAD)
  await page.goto(`${shop.url}/life?kind=nozzle&where=class:booth`)
  await page.getByLabel('Side by side').selectOption('part')
  await expect(page.getByText(/plated lasts .* times as long as KE-N/)).toBeVisible({ timeout: 120_000 })
  await page.getByText('Your word on nozzles').click()
  await page.getByLabel(/Usually they do/).fill('60')
  await page.getByLabel(/One in ten/).fill('70')
  await page.getByRole('button', { name: 'Say it' }).click()
  await expect(page.getByRole('alert')).toContainText('must be less')
  await page.getByLabel(/One in ten/).fill('20')
  await page.getByRole('button', { name: 'Say it' }).click()
  await expect(page.getByRole('button', { name: 'Take it back' })).toBeVisible()
  await page.getByText('Try one thing or another …').click()
  await page.getByLabel('This', { exact: true }).selectOption('other')
  await page.getByLabel('What is done').fill('no dip')
  await page.getByLabel('or that').selectOption('other')
  await page.getByLabel('What is done').nth(1).fill('dip at each break')
  await page.getByRole('button', { name: /^Deal out 20 places/ }).click()
  await expect(page.getByText(/no dip or dip at each break\?/)).toBeVisible()
  await expect(page.getByText(/0 of 48 worn ones are in/)).toBeVisible()
  await page.getByText('The curve, and the log beside it').click()
  await expect(page.locator('.life-curve canvas')).toBeVisible()
  await page.getByText(/^Each life/).click()
  await page
    .getByRole('row')
    .getByRole('link', { name: /\d+ \w+/ })
    .first()
    .click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('nozzle only')
})

test('a liner whose knob creeps stands on Floor until that sign is switched off', async ({ page }) => {
  test.setTimeout(240_000)
  await signIn(page, shop, LEAD)
  const lead = apiOf(page, shop)
  const linerRow = async () =>
    (await lead.get<{ guns: { name: string; wants: { position: string }[] }[] }>('/floor')).body.guns
      .find((g) => g.name === 'A8')
      ?.wants.some((w) => w.position === 'liner')
  expect(await linerRow()).toBe(true)
  // Of a whole yard only the first rows stand open; of its hall it does.
  await page.getByRole('button', { name: /^Pontoon hall/ }).click()
  await expect(page.getByRole('article', { name: 'A8', exact: true })).toContainText('tension creeps up')
  await page.goto(`${shop.url}/life?kind=liner&where=class:booth`)
  const signs = page.getByRole('region', { name: 'The liner by signs' })
  await expect(signs).toContainText(/Of \d+ worn liners that were looked at/, { timeout: 120_000 })
  await expect(signs).toContainText(/Here it spoke in time of \d+ of the \d+ worn ones it could have/)
  await signs.getByLabel('Tension that creeps up').uncheck()
  await signs.getByRole('button', { name: 'Make it the rule …' }).click()
  const ask = page.getByRole('dialog')
  await expect(ask).toContainText('A8 would close', { timeout: 30_000 })
  await ask.getByRole('button', { name: 'Make it the rule' }).click()
  await expect(ask).toBeHidden({ timeout: 30_000 })
  expect(await linerRow()).toBe(false)
})
