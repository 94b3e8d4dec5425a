// npm run screenshots: one picture of each main view from a fresh demo, into docs/screenshots.
import { spawn } from 'node:child_process'
import { mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureModules, ensurePackages, freePort, programs, ROOT, say, SetupError } from './lib/machine.mjs'

const DESK = { width: 1280, height: 800 }
const PHONE = { width: 390, height: 844 }
const VIEWS = [
  { name: 'life', path: '/life?kind=tip&where=class:cell', size: DESK },
  { name: 'floor', path: '/', size: DESK },
  { name: 'floor-phone', path: '/', size: PHONE },
  { name: 'gun', gun: 'A5', size: DESK },
  { name: 'gun-phone', gun: 'B6', size: PHONE },
  { name: 'guide', path: '/guide?gun={A2}&do=diffuser', size: DESK, light: true },
  { name: 'down', path: '/down?gun={B3}', size: DESK, light: true, jerks: true },
  { name: 'down-phone', path: '/down?gun={B3}', size: PHONE, jerks: true },
  { name: 'payback', path: '/payback', size: DESK },
  { name: 'walk-phone', path: '/walk?minutes=25', size: PHONE, begin: true },
  { name: 'drag', path: '/drag?gun={T2}', size: DESK },
  { name: 'cells', path: '/cells', size: DESK },
  { name: 'classes', path: '/classes', size: DESK },
  { name: 'before-class-phone', path: '/before-class?gun={T3}', size: PHONE },
  { name: 'practice', path: '/practice', size: DESK, drill: true },
  { name: 'parts', path: '/parts', size: DESK },
  { name: 'jobs', path: '/jobs', size: DESK },
  { name: 'spools', path: '/spools', size: DESK },
  { name: 'logbook', path: '/logbook?day=', size: DESK },
]

async function up(url) {
  for (let tries = 0; tries < 900; tries++) {
    if (
      await fetch(`${url}/api/health`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return
    await new Promise((r) => setTimeout(r, 200))
  }
  throw new Error('the server did not come up')
}

/** Names in braces become ids: of a place, else of a wire. */
async function withIds(request, path) {
  if (!path.includes('{')) return path
  const { places } = await (await request.get('/api/find')).json()
  const { wires } = await (await request.get('/api/shop')).json()
  return path.replace(/\{([^}]+)\}/g, (_, name) => {
    const place = places.find((p) => p.name === name)
    return place ? place.stationId : wires.find((w) => w.name === name).id
  })
}

async function take(browser, url, view) {
  const context = await browser.newContext({
    viewport: view.size,
    baseURL: url,
    colorScheme: view.light ? 'light' : 'dark',
    hasTouch: view.size.width < 1000,
  })
  await context.request.post('/api/people/sign-in', {
    headers: { 'x-idle-spool': '1' },
    data: { name: 'Ilse Varn', password: 'low-tide-at-six' },
  })
  const page = await context.newPage()
  let path = view.path
  if (view.gun) {
    const { places } = await (await context.request.get('/api/find')).json()
    path = `/gun/${places.find((p) => p.name === view.gun).stationId}`
  }
  path = await withIds(context.request, path)
  if (path === '/logbook?day=') path += (await (await context.request.get('/api/logbook')).json()).previousDay
  await page.goto(path)
  // Lives are fitted the first time they are asked for.
  await page.getByRole('heading', { level: 1 }).first().waitFor()
  if (['parts', 'jobs'].includes(view.name)) await page.locator('.bins, .job-bar').first().waitFor({ timeout: 90_000 })
  if (view.name === 'life') await page.locator('.life-under').waitFor({ timeout: 90_000 })
  await page.waitForTimeout(900)
  if (view.begin) await page.getByRole('button', { name: /^Begin at/ }).click()
  if (view.jerks) {
    await page.getByRole('button', { name: 'Jerks' }).click()
    await page.getByRole('button', { name: /^Wire jerks/ }).click()
    const nothing = page.getByRole('button', { name: 'Nothing' })
    await page.waitForTimeout(400)
    if (await nothing.count()) await nothing.click()
  }
  if (view.drill) {
    await page.getByRole('button', { name: /^Half out 3/ }).click()
    await page.waitForTimeout(1500)
    await page
      .getByRole('button', { name: /^Work and arc/ })
      .first()
      .click()
    await page.getByRole('button', { name: /^Pull the trigger/ }).click()
    await page.waitForTimeout(2200)
    await page.evaluate('scrollTo(0, 0)')
  }
  await page.waitForTimeout(400)
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', `${view.name}.png`) })
  await context.close()
}

try {
  ensurePackages(['database', 'browser'])
  ensureModules()
  const { buildIfStale } = await import('./build.mjs')
  const { startDatabase } = await import('./lib/mariadb.mjs')
  const { chromium } = await import('@playwright/test')
  await buildIfStale()
  const folder = join(ROOT, '.data', `shots-${process.pid}`)
  const database = await startDatabase({ folder, wantedPort: 35460, isThrowaway: true })
  const port = await freePort(8560)
  const url = `http://127.0.0.1:${port}`
  const server = spawn(process.execPath, [join(ROOT, 'dist/server/main.js')], {
    stdio: 'inherit',
    env: { ...process.env, DATABASE_URL: database.url, PORT: String(port), WITH_DEMO: '1' },
  })
  try {
    await up(url)
    mkdirSync(join(ROOT, 'docs/screenshots'), { recursive: true })
    const browser = await chromium.launch({ executablePath: programs.chromium(), args: ['--no-sandbox'] })
    // Lives are fitted in the background: Floor tells of them from then on.
    await new Promise((r) => setTimeout(r, 45_000))
    for (const view of VIEWS) await take(browser, url, view)
    await browser.close()
    say(`${VIEWS.length} pictures are in docs/screenshots.`)
  } finally {
    server.kill('SIGTERM')
    await database.stop()
    rmSync(folder, { recursive: true, force: true })
  }
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  process.exitCode = 1
}
