import { spawn, type ChildProcess } from 'node:child_process'
import { createServer } from 'node:net'
import AxeBuilder from '@axe-core/playwright'
import {
  test as base,
  expect,
  type APIResponse,
  type Browser,
  type BrowserContext,
  type Locator,
  type Page,
} from '@playwright/test'
import { copyOfYard, dropDatabase, migratedDatabase, urlOf, YARD_MS } from '@server/testing/worlds.ts'

/** A server process of its own on a database of its own. */
export interface Shop {
  url: string
  stop: () => Promise<void>
  start: () => Promise<void>
  /** For good: its database goes too. */
  end: () => Promise<void>
}

async function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer()
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address()
      probe.close(() => done(typeof address === 'object' && address ? address.port : 0))
    })
  })
}

/** Every tab of "Our shop", as its address has it. */
export const SHOP_PARTS = [
  'places',
  'parts',
  'fit',
  'guns',
  'counts',
  'rules',
  'schools',
  'why',
  'guides',
  'prints',
  'shifts',
  'people',
  'bring',
  'site',
]

/**
 * When journeys take place: on a working morning, or at the instant this run has drawn for those that hold on any day. Server, threads, stand-in and
 * pages are moved by the same amount, so that a journey that is green today is green on a Sunday.
 */
/** The yard's history ends when it was built; journeys begin after that. */
const AFTER_MS = 60_000
export const WORKING_MORNING_MS = YARD_MS + AFTER_MS
export const DRAWN_MS = Number(process.env['TEST_DRAWN_MS'] ?? WORKING_MORNING_MS)
export const DRAWN_ZONE = process.env['TEST_DRAWN_ZONE'] ?? 'UTC'
let shiftMs = 0
/** The journey's own clock. */
export const clockShiftMs = () => shiftMs
export const nowMs = () => Date.now() + shiftMs

/** In the page, before anything of it runs. */
function moveClock(byMs: number): void {
  const Real = Date
  if ('isMoved' in Real) return
  class Moved extends Real {
    static isMoved = true
    static override now = () => Real.now() + byMs
    constructor(...given: unknown[]) {
      super(...((given.length === 0 ? [Real.now() + byMs] : given) as [number]))
    }
  }
  globalThis.Date = Moved as unknown as DateConstructor
}
/** A context whose pages go by the journey's clock. */
export async function onTime(context: BrowserContext): Promise<BrowserContext> {
  await context.addInitScript(moveClock, shiftMs)
  return context
}
/** Every page of a journey goes by the journey's clock. */
export const test = base.extend<object, object>({
  context: async ({ context }, use) => {
    await use(await onTime(context))
  },
  browser: [
    async ({ browser }, use) => {
      const open = browser.newContext.bind(browser)
      browser.newContext = async (options) => onTime(await open(options))
      await use(browser)
    },
    { scope: 'worker' },
  ],
})

let made = 0
export async function startShop(
  withDemo: boolean,
  more: Record<string, string> = {},
  atMs = WORKING_MORNING_MS,
): Promise<Shop> {
  shiftMs = atMs - Date.now()
  const root = process.env['TEST_DATABASE_URL']
  if (!root) throw new Error('TEST_DATABASE_URL is not set: run npm test')
  const name = `e2e_${process.pid}_${made++}`
  // The yard's history ends when it was built; the journey begins after that.
  if (withDemo) await copyOfYard(root, name, atMs - AFTER_MS)
  else await migratedDatabase(root, name)
  const port = await freePort()
  const url = `http://127.0.0.1:${port}`
  let child: ChildProcess | null = null
  const start = async () => {
    child = spawn(process.execPath, ['dist/server/main.js'], {
      stdio: ['ignore', 'inherit', 'inherit'],
      env: {
        ...process.env,
        DATABASE_URL: urlOf(root, name),
        PORT: String(port),
        LOCAL_PORT: String(port),
        WITH_DEMO: withDemo ? '1' : '0',
        LOG_LEVEL: 'error',
        CLOCK_SHIFT_MS: String(shiftMs),
        ...more,
      },
    })
    for (let tries = 0; tries < 1500; tries++) {
      const isUp = await fetch(`${url}/api/health`).then(
        (r) => r.ok,
        () => false,
      )
      if (isUp) return
      await new Promise((r) => setTimeout(r, 100))
    }
    throw new Error('the server did not come up')
  }
  const stop = async () => {
    if (!child || child.exitCode !== null) return
    const gone = new Promise((done) => child?.once('exit', done))
    child?.kill('SIGTERM')
    await gone
  }
  const end = async () => {
    await stop()
    await dropDatabase(urlOf(root, name))
  }
  await start()
  return { url, stop, start, end }
}

export const OWNER = { shopName: 'Kettle Lane Frames', name: 'Oda', password: 'ten letters or more' }

/** A fresh shop, opened by its first lead through the first page. */
export async function openNewShop(page: Page, shop: Shop): Promise<void> {
  await page.goto(shop.url)
  await page.getByRole('link', { name: 'Begin' }).click()
  await page.getByLabel('Shop').fill(OWNER.shopName)
  await page.getByLabel('Your name').fill(OWNER.name)
  await page.getByLabel(/password/).fill(OWNER.password)
  await page.getByRole('button', { name: 'Open the shop' }).click()
  await expect(page.getByRole('heading', { name: /No guns yet/ })).toBeVisible()
}

export async function signIn(page: Page, shop: Shop, who: { name: string; password: string }): Promise<void> {
  await page.goto(`${shop.url}/sign-in`)
  await page.getByLabel('Name').fill(who.name)
  await page.getByLabel('Password').fill(who.password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('navigation', { name: 'Sections' })).toBeVisible()
}

/** Signs the owner in, opening the shop first if this is a new one; journeys then stand on their own. */
export async function asOwner(page: Page, shop: Shop, path = '/'): Promise<void> {
  const headers = { 'x-idle-spool': '1' }
  const { name, password, shopName } = OWNER
  const opened = await page.request.post(`${shop.url}/api/people/first-lead`, {
    headers,
    data: { name, password, shopName, zone: 'UTC', units: 'metric' },
  })
  if (!opened.ok()) await page.request.post(`${shop.url}/api/people/sign-in`, { headers, data: { name, password } })
  await page.goto(`${shop.url}${path}`)
}

/** Places that are there already are left as they are. */
export async function withPlaces(page: Page, shop: Shop, names: string): Promise<void> {
  const data = { key: `places-${names}-${nowMs()}`.replace(/[^\w.-]/g, '-'), names, areaName: 'Bay A' }
  await page.request.post(`${shop.url}/api/shop/places`, { headers: { 'x-idle-spool': '1' }, data })
}

/** Opens a gun as a hand would: `/`, its number, Enter. */
export async function openGun(page: Page, name: string): Promise<void> {
  await page.keyboard.press('/')
  await page.getByLabel('The number on the gun').fill(name)
  await page.getByLabel('The number on the gun').press('Enter')
  await expect(
    page.getByRole('heading', {
      level: 1,
      name: name.toUpperCase().startsWith('CELL') ? name : name.toUpperCase(),
      exact: true,
    }),
  ).toBeVisible()
}

/** The page works without the server from now on: its worker has all of it. */
export async function readyForOffline(page: Page): Promise<void> {
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready
    if (!navigator.serviceWorker.controller)
      await new Promise((done) => navigator.serviceWorker.addEventListener('controllerchange', done, { once: true }))
  })
}

export { expect, type Browser, type BrowserContext, type Page }

/** A key by its name: by a text the whole of it, by a pattern any that fits. */
export const key = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name, exact: typeof name === 'string' })
/** The sentence a page opens with: whichever it is, or the one that says so. */
export const heading = (page: Page, name?: string | RegExp) =>
  page.getByRole('heading', { level: 1, ...(name === undefined ? {} : { name, exact: typeof name === 'string' }) })

/** The page's own session, as the helpers that set a shop up ask for it: a server that is busy is asked again, as the page would. */
export function apiOf(page: Page, shop: Shop) {
  const headers = { 'x-idle-spool': '1' }
  const patient = async <T>(ask: () => Promise<APIResponse>) => {
    for (let tries = 5; ; tries--) {
      const answer = await ask()
      if (answer.status() !== 503 || tries === 0) return { status: answer.status(), body: (await answer.json()) as T }
      await page.waitForTimeout(500)
    }
  }
  return {
    get: <T>(path: string) => patient<T>(() => page.request.get(`${shop.url}/api${path}`)),
    post: <T>(path: string, data: unknown) =>
      patient<T>(() => page.request.post(`${shop.url}/api${path}`, { headers, data })),
  }
}

/**
 * Nothing on the page stands in the way of somebody who hears it or sees little contrast; with a theme, as it looks in that one. There are no frames in it:
 * it is looked through as one.
 */
export async function sound(page: Page, theme?: 'dark' | 'light'): Promise<void> {
  if (theme)
    await page.evaluate(async (to) => {
      document.documentElement.dataset['bsTheme'] = to
      // Colours that glide from one theme to the other have arrived.
      await Promise.all(document.getAnimations().map((a) => a.finished.catch(() => undefined)))
    }, theme)
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({ resultTypes: ['violations'] })
    .analyze()
  expect(violations.map((v) => `${new URL(page.url()).pathname} ${v.id}: ${v.nodes[0]?.html}`)).toEqual([])
}

/** A thing taken by hand and let go over another, once that one shows it has seen it: a slow page sees it later. */
export async function dragTo(page: Page, thing: Locator, goal: Locator): Promise<void> {
  await thing.scrollIntoViewIfNeeded()
  await expect(goal).toBeVisible()
  await expect(async () => {
    const [from, to] = [await thing.boundingBox(), await goal.boundingBox()]
    if (!from || !to) throw new Error('not laid out yet')
    await page.mouse.move(from.x + 60, from.y + 20)
    await page.mouse.down()
    await page.mouse.move(from.x + 80, from.y + 30, { steps: 4 })
    await page.mouse.move(to.x + 80, to.y + 12, { steps: 8 })
    try {
      await expect(goal).toHaveClass(/is-over/, { timeout: 4_000 })
    } catch (error) {
      await page.keyboard.press('Escape')
      await page.mouse.up()
      throw error
    }
    await page.mouse.up()
  }).toPass()
}
