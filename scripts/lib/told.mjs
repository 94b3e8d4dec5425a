// People at booths, as programs: they send writes until they are told that they are kept, and remember what they were told. Then that is compared with what
// is stored.
import { spawnSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { join } from 'node:path'
import { ROOT, wait } from './machine.mjs'

const ANSWER_WITHIN_MS = 8000
const DAY_MS = 86_400_000
/** Letters of a key. */
const MARK = 36

/** A browser's worth of cookies at an address that may change. */
export class Booth {
  cookies = new Map()
  constructor(address) {
    this.address = address
  }
  async ask(method, path, body, { headers = {}, withinMs = ANSWER_WITHIN_MS } = {}) {
    const giveUp = new AbortController()
    let timer
    // Not left to the signal alone: an answer that is cut off while it is unpacked may never end by it.
    const late = new Promise((_, fail) => {
      timer = setTimeout(() => {
        fail(new Error('no answer'))
        giveUp.abort()
      }, withinMs)
    })
    const answer = this.answer(method, path, { body, headers, signal: giveUp.signal })
    answer.catch(() => undefined)
    return Promise.race([answer, late]).finally(() => clearTimeout(timer))
  }
  async answer(method, path, { body, headers, signal }) {
    const response = await fetch(`${this.address()}/api${path}`, {
      method,
      headers: {
        cookie: [...this.cookies].map(([k, v]) => `${k}=${v}`).join('; '),
        ...(method === 'POST' ? { 'x-idle-spool': '1', 'content-type': 'application/json' } : {}),
        ...headers,
      },
      ...(body === undefined ? {} : { body: Buffer.isBuffer(body) ? body : JSON.stringify(body) }),
      signal,
    })
    for (const cookie of response.headers.getSetCookie()) {
      const [name, value] = cookie.split(';')[0].split('=')
      this.cookies.set(name, value)
    }
    const text = await response.text()
    return { status: response.status, body: text.startsWith('{') ? JSON.parse(text) : text }
  }
  /** Goes on through a server that is away, and gives the first answer that is one. */
  async until(method, path, body, giveUpMs = 120_000) {
    for (const endMs = Date.now() + giveUpMs; ;) {
      const answer = await this.ask(method, path, body).catch((problem) => ({ status: 0, body: String(problem) }))
      if (answer.status === 200) return answer.body
      if (Date.now() > endMs || (answer.status >= 400 && answer.status < 500 && answer.status !== 429))
        throw new Error(`${method} ${path}: ${answer.status} ${JSON.stringify(answer.body)}`)
      await wait(300)
    }
  }
}

export const LEAD = { name: 'Lead', password: 'a long password' }
/** A shop with its lead signed in at `lead`, and places by name; answers their ids. */
export async function openShop(lead, names) {
  await lead.until('POST', '/people/first-lead', { shopName: 'Trial shop', zone: 'UTC', units: 'metric', ...LEAD })
  const made = await lead.until('POST', '/shop/places', { key: randomUUID(), names, areaName: 'Bay A' })
  return made.made.map((m) => m.stationId)
}

const POSITIONS = ['tip', 'nozzle', 'diffuser']
const pick = (list) => list[Math.floor(Math.random() * list.length)]
/** One thing that somebody at a booth writes down; its key is its note too, so that it is found by what it says as well. */
export function something(stations) {
  const key = randomUUID()
  const stationId = pick(stations)
  const headers =
    Math.random() < 0.15 ? { 'x-happened': String(Date.now() - 2 * DAY_MS + Math.floor(Math.random() * DAY_MS)) } : {}
  const changed = { act: 'changed', position: pick(POSITIONS), outReason: 'worn' }
  const act = pick([changed, changed, { act: 'cleaned', position: 'nozzle' }, { act: 'seen' }])
  if (Math.random() < 0.2) {
    // A walk that was done without a link: many entries at once, each under its own key.
    const entries = Array.from({ length: 3 }, (_, i) => ({
      ...{ key: `${key}-${i}`, stationId: pick(stations), happenedMs: Date.now() - 60_000 * (i + 1) },
      looks: [],
      acts: [{ act: 'changed', position: 'tip', outReason: 'worn' }],
    }))
    return { key, path: '/walk/found', body: { entries }, headers: {}, notes: entries.map((e) => e.key) }
  }
  return { key, path: '/logbook', body: { key, acts: [{ stationId, ...act, note: key }] }, headers, notes: [key] }
}

/** What was sent, and what became of it as far as its sender was told. */
export class Told {
  sent = new Map()
  tries = 0
  faults = new Map()
  /** When somebody was told that something is kept. */
  keptMs = []

  /** Sends it until it is told kept or refused; some twice at once, some begun and cut off first. */
  async send(booth, it, isOver) {
    this.sent.set(it.key, { notes: it.notes, is: 'unknown' })
    const once = () => booth.ask('POST', it.path, it.body, { headers: it.headers })
    if (Math.random() < 0.1) void once().catch(() => undefined)
    if (Math.random() < 0.05) await cutOff(booth, it)
    while (!isOver()) {
      this.tries++
      try {
        const { status, body } = await once()
        if (status === 200) return void this.keep(it.key, body)
        this.note(`${status} ${body?.message ?? ''}`)
        if (status >= 400 && status < 500 && status !== 429) return void (this.sent.get(it.key).is = 'refused')
      } catch (problem) {
        this.note(problem.message === 'no answer' ? 'no answer' : 'no line')
      }
      await wait(100 + Math.random() * 400)
    }
  }
  keep(key, body) {
    const of = this.sent.get(key)
    of.is = 'kept'
    this.keptMs.push(Date.now())
    // Of a walk each entry is told by itself.
    const refused = (body.entries ?? []).filter((e) => e.is === 'refused')
    for (const { key: entry, message } of refused) {
      of.notes = of.notes.filter((note) => note !== entry)
      this.note(`entry: ${message}`)
    }
  }
  note(what) {
    this.faults.set(what, (this.faults.get(what) ?? 0) + 1)
  }
  count = (is) => [...this.sent.values()].filter((s) => s.is === is).length
}

/** Half of a request, and then the line is gone. */
async function cutOff(booth, it) {
  const { request } = await import('node:http')
  const text = JSON.stringify(it.body)
  await new Promise((done) => {
    const req = request(`${booth.address()}/api${it.path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'content-length': Buffer.byteLength(text), 'x-idle-spool': '1' },
    })
    req.on('error', () => done())
    req.write(text.slice(0, text.length / 2), () => {
      req.destroy()
      done()
    })
  })
}

/** What differs between what was told and what is stored: told and not there, there twice, there though it was refused. */
export async function compare(url, told) {
  const mysql = await import('mysql2/promise')
  const connection = await mysql.createConnection({ uri: url, connectTimeout: 10_000 })
  try {
    const [rows] = await connection.query(
      // What was logged is found by what it says, what a walk brought by its entry's key.
      `select coalesce(note, left(idempotency_key, ${MARK + 2})) as note, count(distinct act_id) as n from ledger_event
       where note is not null or length(idempotency_key) > ${MARK} group by 1`,
    )
    const stored = new Map(rows.map((r) => [r.note, Number(r.n)]))
    const all = [...told.sent.values()]
    const of = (is) => all.filter((s) => s.is === is).flatMap((s) => s.notes)
    return {
      stored: [...stored.values()].reduce((a, b) => a + b, 0),
      lost: of('kept').filter((note) => !stored.has(note)),
      twice: all.flatMap((s) => s.notes).filter((note) => (stored.get(note) ?? 0) > 1),
      unasked: of('refused').filter((note) => stored.has(note)),
    }
  } finally {
    connection.destroy()
  }
}

/** Rows in which what is stored differs from what the ledger comes to. */
export function driftOf(url) {
  const done = spawnSync(process.execPath, [join(ROOT, 'dist/server/tool.js'), 'rebuild'], {
    encoding: 'utf8',
    env: { ...process.env, DATABASE_URL: url },
  })
  return done.status === 0 ? 0 : Number(/(\d+) rows differ\. /.exec(done.stdout)?.[1] ?? NaN)
}
