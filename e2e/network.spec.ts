import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { BROWSER } from './browser.ts'
import { expect, OWNER, sound, startShop, test, type Shop } from './fixtures.ts'

/** The program on the shop's network: a phone that has come to trust it scans with its camera and keeps its sign-in secret. */
const folder = mkdtempSync(join(tmpdir(), 'idle-network-'))
let shop: Shop
let ports: Record<'secure' | 'trust', number>

const freePort = () =>
  new Promise<number>((done) => {
    const probe = createServer()
    probe.listen(0, () => {
      const address = probe.address()
      probe.close(() => done(typeof address === 'object' && address ? address.port : 0))
    })
  })

// One shop for all of them: one that fails is tried again with those before it, on a fresh one.
test.describe.configure({ mode: 'serial' })
test.beforeAll(async () => {
  ports = { secure: await freePort(), trust: await freePort() }
  shop = await startShop(false, {
    LAN_FOLDER: folder,
    TRUST_PORT: String(ports.trust),
    PORT: String(ports.secure),
  })
})
test.afterAll(async () => {
  await shop.end()
  rmSync(folder, { recursive: true, force: true })
})

test('the plain page says how to trust it, and is all that is plain', async ({ page }) => {
  await page.goto(`http://127.0.0.1:${ports.trust}/`)
  await expect(page.getByRole('heading', { name: 'Let this device trust the shop’s own line' })).toBeVisible()
  expect(readFileSync(join(folder, 'authority.cert.pem'), 'utf8')).toContain('BEGIN CERTIFICATE')
  const fingerprint = (await page.locator('code').textContent()) ?? ''
  expect(fingerprint).toMatch(/^([0-9A-F]{2} ){31}[0-9A-F]{2}$/)
  const answer = await page.request.get(`http://127.0.0.1:${ports.trust}/api/shop`, { maxRedirects: 0 })
  expect(answer.status()).toBe(302)
})

test('from an empty machine to the first phone that logs a tip, and takes it back, as each of them sees it', async ({
  browser,
}) => {
  test.setTimeout(90_000)
  const url = `https://127.0.0.1:${ports.secure}`
  // The lead, at the office computer.
  const office = await browser.newContext({ ignoreHTTPSErrors: true })
  const desk = await office.newPage()
  await desk.goto(url)
  await desk.getByRole('link', { name: 'Begin' }).click()
  await desk.getByLabel('Shop').fill(OWNER.shopName)
  await desk.getByLabel('Your name').fill(OWNER.name)
  await desk.getByLabel(/password/).fill(OWNER.password)
  await desk.getByRole('button', { name: 'Open the shop' }).click()
  await desk.getByLabel('numbers painted').fill('A1-A2')
  await desk.getByLabel('where they stand').fill('Bay A')
  await desk.getByRole('button', { name: 'Set up 2' }).click()
  await desk.goto(`${url}/shop?part=people`)
  await desk.getByLabel('what it is called').fill('bay phone')
  await desk.getByRole('button', { name: 'Make a link for it' }).click()
  const link = await desk.locator('.device-link').innerText()
  expect(link).toContain(url)

  // A phone that nobody bound is told what to do, also when it comes by a card's code.
  const pocket = await browser.newContext({
    ignoreHTTPSErrors: true,
    viewport: { width: 390, height: 844 },
    hasTouch: true,
  })
  const phone = await pocket.newPage()
  await phone.goto(`http://127.0.0.1:${ports.trust}/`)
  await expect(phone.getByRole('heading', { name: 'Let this device trust the shop’s own line' })).toBeVisible()
  await phone.goto(`${url}/go/A1`)
  await expect(phone.getByText(/Ask the lead for a link/)).toBeVisible()
  await phone.goto(link)
  await phone.getByRole('button', { name: 'Bind it here' }).click()
  await expect(phone.getByRole('heading', { name: 'Nobody has looked at 2 guns.' })).toBeVisible()

  // The card on the booth: its gun, the two taps, and nothing else.
  await phone.goto(`${url}/go/A1`)
  await expect(phone.getByRole('heading', { level: 1, name: 'A1' })).toBeVisible()
  await expect(phone.getByText(/Did you change or clean something on A1/)).toBeVisible()
  await expect(phone.getByRole('button', { name: 'Swap the gun' })).toHaveCount(0)
  await sound(phone, 'light')
  await phone.getByRole('button', { name: 'Tip changed' }).click()
  await phone.getByRole('button', { name: 'Worn' }).click()
  await expect(phone.getByLabel('Last logged')).toContainText('Tip changed · A1')
  await desk.goto(`${url}/logbook`)
  await expect(desk.getByLabel('What was done')).toContainText('Tip changed')
  await phone.getByRole('button', { name: 'Undo' }).click()
  await expect(desk.getByLabel('What was done')).toContainText(/undone|taken back/i)

  // Whoever wants the whole gun gets it, and from then on always.
  await phone.getByRole('button', { name: 'show me all of A1' }).click()
  await expect(phone.getByRole('button', { name: 'Swap the gun' })).toBeVisible()
  await phone.goto(`${url}/go/A1`)
  await expect(phone.getByRole('button', { name: 'Swap the gun' })).toBeVisible()
  await office.close()
  await pocket.close()
})

test('over the encrypted line the camera scans, and the sign-in stays secret', async ({ playwright }) => {
  const browser = await playwright.chromium.launch({
    executablePath: BROWSER,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      '--use-file-for-fake-video-capture=e2e/fixtures/camera.mjpeg',
    ],
  })
  const context = await browser.newContext({
    ignoreHTTPSErrors: true,
    viewport: { width: 390, height: 844 },
    permissions: ['camera'],
  })
  const page = await context.newPage()
  const url = `https://127.0.0.1:${ports.secure}`
  const post = (path: string, data: object) =>
    page.request.post(`${url}/api${path}`, { headers: { 'x-idle-spool': '1' }, data })
  // The shop is as the journey before left it, or a new one where this one runs alone.
  await post('/people/first-lead', { ...OWNER, zone: 'UTC', units: 'metric' })
  await post('/people/sign-in', { name: OWNER.name, password: OWNER.password })
  await post('/shop/places', { key: 'places-network', names: 'A1–A2', areaName: 'Bay A' })
  expect((await context.cookies()).find((c) => c.name === 'idle_session')).toMatchObject({
    secure: true,
    httpOnly: true,
  })
  await page.goto(`${url}/scan`)
  await page.getByRole('button', { name: 'Use the camera' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Tip changed · A1.' })).toBeVisible({ timeout: 20_000 })
  await page.getByRole('button', { name: 'Stop the camera' }).click()
  await expect(page.getByLabel('What the camera sees')).toHaveCount(0)
  await browser.close()
})
