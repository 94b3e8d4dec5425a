import { type RequestListener } from 'node:http'
import { inBrowser, type Devtools, type Page, type SignedIn } from './inbrowser.ts'

const SLOW_LINK = { offline: false, latency: 150, downloadThroughput: 1_500_000 / 8, uploadThroughput: 750_000 / 8 }

export interface FirstScreen {
  /** From the first byte to anything on the screen, and to Floor, on a core a quarter as fast over 1.5 Mbit/s and 150 ms. */
  frameMs: number
  floorMs: number
  /** From a tap to a gun that is held, and back. */
  routeMs: number[]
  /** What the page holds with Floor open. */
  heapMb: number
}

/** A browser that was never here, at a slow phone's pace; then what it holds and how fast it goes from page to page at its own. */
export const firstScreen = (app: RequestListener, at: SignedIn): Promise<FirstScreen> => {
  const context = { serviceWorkers: 'block', viewport: { width: 1280, height: 800 } } as const
  return inBrowser(app, { ...at, context }, async ({ url, page, devtools }) => {
    await devtools.send('Network.enable')
    await devtools.send('Network.emulateNetworkConditions', SLOW_LINK)
    await devtools.send('Emulation.setCPUThrottlingRate', { rate: 4 })
    await page.goto(url, { waitUntil: 'commit' })
    await page.waitForFunction(() => document.querySelector('.strands') !== null, null, { polling: 50 })
    const told = await page.evaluate(() => {
      const [navigation] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[]
      const firstByte = navigation?.responseStart ?? 0
      const paint = performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN
      return { frameMs: paint - firstByte, floorMs: performance.now() - firstByte }
    })
    const free = { ...SLOW_LINK, latency: 0, downloadThroughput: -1, uploadThroughput: -1 }
    await devtools.send('Network.emulateNetworkConditions', free)
    await devtools.send('Emulation.setCPUThrottlingRate', { rate: 1 })
    const heapMb = await heapOf(devtools)
    return { ...told, heapMb, routeMs: await routes(page) }
  })
}

async function heapOf(devtools: Devtools): Promise<number> {
  await devtools.send('HeapProfiler.collectGarbage')
  const { usedSize } = await devtools.send('Runtime.getHeapUsage')
  return usedSize / 1e6
}

/** To a gun and back, five times; the first, which loads what the page is made of, does not count. */
async function routes(page: Page): Promise<number[]> {
  const times: number[] = []
  for (let i = 0; i < 6; i++)
    for (const [link, there] of [
      ['main a[href^="/gun/"]', 'main.gun:not([aria-busy="true"])'],
      ['nav a[href="/"]', '.strands'],
    ] as const) {
      const ms = await page.evaluate(
        async ([link, there]) => {
          const fromMs = performance.now()
          document.querySelector<HTMLElement>(link)?.click()
          while (!document.querySelector(there)) await new Promise((done) => requestAnimationFrame(done))
          return performance.now() - fromMs
        },
        [link, there] as const,
      )
      if (i > 0) times.push(ms)
      await page.waitForTimeout(400)
    }
  return times
}
