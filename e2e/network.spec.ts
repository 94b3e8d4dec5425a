import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, OWNER, startShop, test, type Shop } from './fixtures.ts'

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

test.beforeAll(async () => {
  ports = { secure: await freePort(), trust: await freePort() }
  shop = await startShop(false, {
    LAN_FOLDER: folder,
    TRUST_PORT: String(ports.trust),
    PORT: String(ports.secure),
  })
})
test.afterAll(async () => {
  await shop.stop()
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

test('over the encrypted line the camera scans, and the sign-in stays secret', async ({ playwright }) => {
  const browser = await playwright.chromium.launch({
    executablePath: '/usr/bin/chromium',
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
  await post('/people/first-lead', { ...OWNER, zone: 'UTC', units: 'metric' })
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
