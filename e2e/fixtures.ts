import { spawn, type ChildProcess } from 'node:child_process'
import { createServer } from 'node:net'
import { test as base, expect, type Browser, type BrowserContext, type Page } from '@playwright/test'
import mysql from 'mysql2/promise'

/** A server process of its own on a database of its own. */
export interface Shop {
  url: string
  stop: () => Promise<void>
  start: () => Promise<void>
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

let yard: string | null = null
async function copyAll(connection: mysql.Connection, from: string, to: string): Promise<void> {
  const [tables] = await connection.query<mysql.RowDataPacket[]>(`show tables from \`${from}\``)
  for (const table of tables.map((row) => String(Object.values(row)[0]))) {
    await connection.query(`create table \`${to}\`.\`${table}\` like \`${from}\`.\`${table}\``)
    await connection.query(`insert into \`${to}\`.\`${table}\` select * from \`${from}\`.\`${table}\``)
  }
}

let made = 0
export async function startShop(withDemo: boolean, more: Record<string, string> = {}): Promise<Shop> {
  const root = process.env['TEST_DATABASE_URL']
  if (!root) throw new Error('TEST_DATABASE_URL is not set: run npm test')
  const name = `e2e_${process.pid}_${made++}`
  const connection = await mysql.createConnection(root)
  await connection.query(`create database \`${name}\` character set utf8mb4`)
  if (withDemo && yard) await copyAll(connection, yard, name)
  const port = await freePort()
  const url = `http://127.0.0.1:${port}`
  let child: ChildProcess | null = null
  const start = async () => {
    child = spawn(process.execPath, ['dist/server/main.js'], {
      stdio: ['ignore', 'inherit', 'inherit'],
      env: {
        ...process.env,
        DATABASE_URL: root.replace(/\/[^/]*$/, `/${name}`),
        PORT: String(port),
        LOCAL_PORT: String(port),
        WITH_DEMO: withDemo ? '1' : '0',
        LOG_LEVEL: 'error',
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
  await start()
  if (withDemo && !yard) {
    // As it was built, before anybody touched it: the next journeys in the yard begin from a copy.
    const kept = `${name}_yard`
    await connection.query(`create database \`${kept}\` character set utf8mb4`)
    await copyAll(connection, name, kept)
    yard = kept
  }
  await connection.end()
  return { url, stop, start }
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
  const data = { key: `places-${names}-${Date.now()}`.replace(/[^\w.-]/g, '-'), names, areaName: 'Bay A' }
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

export const test = base
export { expect, type Browser, type BrowserContext, type Page }

/** The page's own session, as the helpers that set a shop up ask for it. */
export function apiOf(page: Page, shop: Shop) {
  const headers = { 'x-idle-spool': '1' }
  return {
    get: async <T>(path: string) => {
      const answer = await page.request.get(`${shop.url}/api${path}`)
      return { status: answer.status(), body: (await answer.json()) as T }
    },
    post: async <T>(path: string, data: unknown) => {
      const answer = await page.request.post(`${shop.url}/api${path}`, { headers, data })
      return { status: answer.status(), body: (await answer.json()) as T }
    },
  }
}
