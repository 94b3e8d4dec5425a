import { type RequestListener } from 'node:http'
import { inBrowser, type SignedIn } from './inbrowser.ts'

/**
 * Milliseconds from a page being opened to its first sentence, with no server there: the worker and what it kept do all of it. The first
 * number on this machine, the second as a phone a quarter as fast.
 */
export const offlineStart = (app: RequestListener, at: SignedIn): Promise<{ here: number; phone: number }> => {
  const context = { serviceWorkers: 'allow', viewport: { width: 390, height: 844 } } as const
  return inBrowser(app, { ...at, context }, async ({ url, page, devtools, server }) => {
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
    await devtools.send('Emulation.setCPUThrottlingRate', { rate: 4 })
    return { here, phone: await opened() }
  })
}
