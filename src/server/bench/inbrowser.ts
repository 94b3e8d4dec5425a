import { createServer, type RequestListener, type Server } from 'node:http'
import { type AddressInfo } from 'node:net'
import { chromium } from '@playwright/test'

export interface SignedIn {
  token: string
  chromium: string
}
type Browser = Awaited<ReturnType<typeof chromium.launch>>
export type Page = Awaited<ReturnType<Browser['newPage']>>
export type Devtools = Awaited<ReturnType<ReturnType<Page['context']>['newCDPSession']>>
interface Opened {
  url: string
  page: Page
  devtools: Devtools
  server: Server
}

/** A page of a browser of its own before a server of its own, signed in; both are gone when the work is done. */
export async function inBrowser<T>(
  app: RequestListener,
  at: SignedIn & { context: Parameters<Browser['newContext']>[0] },
  work: (opened: Opened) => Promise<T>,
): Promise<T> {
  const server = createServer(app)
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  const browser = await chromium.launch({ executablePath: at.chromium, args: ['--no-sandbox', '--disable-gpu'] })
  try {
    const context = await browser.newContext(at.context)
    await context.addCookies([{ name: 'idle_session', value: at.token, url }])
    const page = await context.newPage()
    return await work({ url, page, server, devtools: await context.newCDPSession(page) })
  } finally {
    await browser.close()
    server.closeAllConnections()
    server.close()
  }
}
