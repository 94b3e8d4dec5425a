import {
  asOwner,
  DRAWN_MS,
  DRAWN_ZONE,
  expect,
  openGun,
  openNewShop,
  OWNER,
  sound,
  startShop,
  test,
  withPlaces,
  type Shop,
} from './fixtures.ts'

let shop: Shop
test.use({ timezoneId: DRAWN_ZONE })
// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async () => {
  // Opened on whatever day, hour and zone this run has drawn.
  shop = await startShop(false, {}, DRAWN_MS)
})
test.afterAll(() => shop.end())

test('from nothing to a gun of one’s own, a tip changed, undone, corrected and moved', async ({ page, browser }) => {
  await openNewShop(page, shop)
  await page.getByLabel('numbers painted on them').fill('A1–A6')
  await page.getByLabel('where they stand').fill('Bay A')
  await page.getByRole('button', { name: 'Set up 6' }).click()
  await expect(page.getByRole('heading', { name: 'Nobody has looked at 6 guns.' })).toBeVisible()

  await openGun(page, 'a2')
  await expect(page.getByText('Nobody has looked at this one.')).toBeVisible()
  const other = await browser.newContext({ storageState: await page.context().storageState() })
  const second = await other.newPage()
  await second.goto(page.url())
  await expect(second.getByRole('heading', { level: 1, name: 'A2' })).toBeVisible()

  await page.getByRole('button', { name: 'Tip changed' }).click()
  await page.getByRole('button', { name: 'Worn' }).click()
  await expect(page.getByLabel('Last logged')).toContainText('Tip changed · A2')
  await expect(page.getByLabel('What was done')).toContainText('Tip changed: worn.')
  await expect(second.getByLabel('What was done')).toContainText('Tip changed: worn.')

  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('Nothing logged here yet.')).toBeVisible()
  await expect(second.getByText('Nothing logged here yet.')).toBeVisible()

  await page.keyboard.press('t')
  await page.getByRole('button', { name: 'Burned back' }).click()
  await page.getByRole('button', { name: 'not A2' }).click()
  await page.getByRole('textbox', { name: 'Which gun was it' }).fill('A3')
  await page.getByRole('button', { name: /^A3/ }).click()
  await expect(page.getByLabel('Last logged')).toContainText('Tip changed · A3')
  await openGun(page, 'A3')
  await expect(page.getByLabel('What was done')).toContainText('Tip changed: burned back. corrected')

  await page.getByRole('link', { name: 'Logbook' }).click()
  await page.getByRole('button', { name: 'correct' }).first().click()
  await page.getByLabel('It came out because').selectOption('worn')
  await page.getByRole('button', { name: 'Correct it' }).click()
  await expect(page.getByLabel('What was done')).toContainText('Tip changed: worn. corrected')
  await other.close()
})

test('a sheet with five mistakes gets five clear lines, and is taken in when mended', async ({ page }) => {
  await asOwner(page, shop)
  await page.getByRole('link', { name: 'Our shop' }).click()
  await page.getByRole('button', { name: 'bring in a sheet' }).click()
  const bad =
    'booth,bay,part kind,put on,cable\nK1,North,banana,2025-01-05,4\nK2,North,tip,soon,4\n,North,tip,2025-01-05,4\nK4,,tip,2025-01-05,4\nK5,North,,,4000'
  await page.getByLabel('or paste it here').fill(bad)
  await page.getByRole('button', { name: 'Read it' }).click()
  await expect(page.getByRole('heading', { name: '5 cells to mend' })).toBeVisible()
  await expect(page.getByRole('row', { name: /^2 part kind “banana”/ })).toBeVisible()
  // Only who asks for it gets the rest without them.
  await expect(page.getByRole('button', { name: 'Take in the rest, leave 5 out' })).toBeVisible()
  const mended = bad
    .replace('banana', 'liner')
    .replace('soon', '2025-01-06')
    .replace('\n,North', '\nK3,North')
    .replace('K4,,', 'K4,North,')
    .replace('4000', '4')
  await page.getByLabel('or paste it here').fill(mended)
  await page.getByRole('button', { name: 'Read it' }).click()
  await expect(page.getByRole('heading', { name: /All 5 rows can be read/ })).toBeVisible()
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByText(/Taken in: 5 places new/)).toBeVisible()
  await openGun(page, 'K2')
})

test('a limit, shifts and a shift total make a gun want hands', async ({ page }) => {
  await asOwner(page, shop)
  await withPlaces(page, shop, 'A1')
  await page.getByRole('link', { name: 'Our shop' }).click()
  await page.getByRole('button', { name: 'limits' }).click()
  await page.getByLabel('contact tip: change at').fill('2')
  await page
    .getByRole('row', { name: /contact tip/ })
    .getByRole('button', { name: 'Save' })
    .click()
  await expect(page.getByRole('row', { name: /contact tip/ })).toContainText('Oda')
  await openGun(page, 'A1')
  await page.keyboard.press('t')
  await page.getByRole('button', { name: 'earlier today' }).click()
  await page.getByRole('button', { name: 'Not said' }).click()
  await expect(page.getByLabel('What was done')).toContainText('Tip changed.')
  await page.getByRole('button', { name: 'Enter a shift’s usage' }).click()
  await page.getByLabel('arc hours').fill('23')
  await page.getByRole('button', { name: 'Enter', exact: true }).click()
  await expect(page.getByText(/Usage entered up to/)).toBeVisible()
  await expect(page.getByLabel('What was done')).toContainText('Shift usage entered.')
})

test('an unbound device is told what to do, and a link binds it once', async ({ browser, page }) => {
  await asOwner(page, shop)
  const fresh = await browser.newContext()
  const tablet = await fresh.newPage()
  await tablet.goto(shop.url)
  await expect(tablet.getByRole('heading', { name: 'This device belongs to no place yet' })).toBeVisible()
  await page.getByRole('link', { name: 'Our shop' }).click()
  await page.getByRole('button', { name: 'people and devices' }).click()
  await page.getByLabel('what it is called').fill('bay tablet')
  await page.getByRole('button', { name: 'Make a link for it' }).click()
  const link = await page.locator('.device-link').innerText()
  await tablet.goto(link)
  await tablet.getByRole('button', { name: 'Bind it here' }).click()
  await expect(tablet.getByRole('link', { name: 'Floor' })).toBeVisible()
  await sound(tablet)
  await fresh.close()
})

test('a sheet of notes becomes history: read under its title, asked about in groups, one bad row left out', async ({
  page,
}) => {
  await asOwner(page, shop)
  await withPlaces(page, shop, 'N1–N6')
  await page.goto(`${shop.url}/shop?part=bring`)
  await page.getByLabel('the sheet holds').selectOption('past work, in your own words')
  const lastYear = new Date(DRAWN_MS).getUTCFullYear() - 1
  const rows = Array.from({ length: 60 }, (_, i) => {
    const day = `${1 + (i % 28)}.${1 + Math.floor(i / 10)}.${lastYear}`
    return `n-0${1 + (i % 6)};${day};"${['tip', 'new tip', 'tip x2', 'cup cleaned', 'liner, kinked'][i % 5] ?? ''}"`
  })
  rows[7] = `Q9;3.1.${lastYear};"tip"`
  const sheet = ['What we did, north bay', '', 'Gun;Date;What', ...rows].join('\n')
  await page
    .getByLabel('a file: CSV or XLSX')
    .setInputFiles({ name: 'bay.csv', mimeType: 'text/csv', buffer: Buffer.from(sheet) })
  const tips = page.getByRole('group', { name: /notes say contact tip \(.* of them\), not what was done/ })
  await expect(tips).toBeVisible()
  await expect(page.getByRole('heading', { name: 'One cell to mend, or it is left out.' })).toBeVisible()
  await page
    .getByRole('group', { name: /notes say liner, not what was done/ })
    .getByRole('button', { name: 'leave out' })
    .click()
  await page.getByRole('button', { name: 'Take in the rest, leave 1 out' }).click()
  await expect(page.getByText(/Taken in: .* parts put on/)).toBeVisible()
  await openGun(page, 'N2')
  await expect(page.getByLabel('What was done')).toContainText('Tip changed')
  await page.goto(`${shop.url}/logbook?day=${lastYear}-01-02`)
  await expect(page.getByLabel('What was done').getByRole('listitem').first()).toContainText('that day')
})

test('a whole shop goes out as one file and comes back into an empty one', async ({ page, browser }) => {
  test.setTimeout(120_000)
  await asOwner(page, shop)
  const file = await (await page.request.get(`${shop.url}/api/shop/whole.jsonl`)).body()
  const other = await startShop(false, {}, DRAWN_MS)
  const context = await browser.newContext()
  const fresh = await context.newPage()
  await fresh.goto(`${other.url}/sign-in`)
  await fresh
    .getByLabel('the file it was saved as')
    .setInputFiles({ name: 'shop.jsonl', mimeType: 'application/jsonl', buffer: file })
  await expect(fresh.getByRole('heading', { name: 'Sign in' })).toBeVisible({ timeout: 30_000 })
  await fresh.getByLabel('Name').fill(OWNER.name)
  await fresh.getByLabel('Password').fill(OWNER.password)
  await fresh.getByRole('button', { name: 'Sign in' }).click()
  await expect(fresh.getByRole('link', { name: 'Our shop' })).toBeVisible()
  const back = await (await fresh.request.get(`${other.url}/api/shop/whole.jsonl`)).body()
  const rows = (text: Buffer) => text.toString().split('\n').slice(1)
  expect(rows(back)).toEqual(rows(file))
  await context.close()
  await other.end()
})
