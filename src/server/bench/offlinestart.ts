import { createServer } from 'node:http'
import { type AddressInfo } from 'node:net'
import { type RequestListener } from 'node:http'
import { chromium } from '@playwright/test'

/**
 * Milliseconds from a page being opened to its first sentence, with no server there: the worker and what it kept do all of it. The first
 * number on this machine, the second as a phone a quarter as fast.
 */
export async function offlineStart(
  app: RequestListener,
  at: { token: string; chromium: string },
): Promise<{ here: number; phone: number }> {
  const server = createServer(app)
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  const browser = await chromium.launch({ executablePath: at.chromium, args: ['--no-sandbox', '--disable-gpu'] })
  try {
    const context = await browser.newContext({ serviceWorkers: 'allow', viewport: { width: 390, height: 844 } })
    await context.addCookies([{ name: 'idle_session', value: at.token, url }])
    const page = await context.newPage()
    const opened = async () => {
      const from = performance.now()
      await page.goto(url, { waitUntil: 'commit' })
      await page.locator('h1').waitFor()
      return performance.now() - from
    }
    await opened()
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null)
    await opened()
    await page.waitForTimeout(2000)
    server.closeAllConnections()
    await new Promise((done) => server.close(done))
    await opened()
    const here = await opened()
    const devtools = await context.newCDPSession(page)
    await devtools.send('Emulation.setCPUThrottlingRate', { rate: 4 })
    return { here, phone: await opened() }
  } finally {
    await browser.close()
    server.close()
  }
}
