import { DAY_MS } from '@core/units/time.ts'
import { createServer } from 'node:http'
import { type AddressInfo } from 'node:net'
import { join } from 'node:path'
import { readdirSync, readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { compose } from '@server/wiring/compose.ts'
import { migrateDatabase } from '@server/db/db.ts'
import { isEmpty } from '@server/demo/demo.ts'
import { stationNow } from '@server/db/schema.ts'
import { startSettling } from '@server/settle/settlethread.ts'
import { firstLead, signIn } from '@server/people/people.ts'
import { fitAft } from '@core/life/aft.ts'
import { fitWeibull } from '@core/life/weibull.ts'
import { keepFits } from '@server/life/keep.ts'
import { LifeReader } from '@server/life/reader.ts'
import { kaplanMeier } from '@core/life/kaplanmeier.ts'
import { explain } from '@core/drag/explain.ts'
import { forceProfile } from '@core/drag/profile.ts'
import { guessedSetup, withValues, type DragShape } from '@core/drag/setup.ts'
import { usualShape } from '@core/drag/usual.ts'
import { measureBore } from '@core/photomeasure/bore.ts'
import { drawWeibull, makeRandom } from '@core/random/random.ts'
import { RATE, sendAll, whileSending, type SendJob } from './feeders.ts'
import { buildWorld } from './world.ts'

/** Speed against the targets, printed as a table; never asserted in tests. */
const ROOT = process.cwd()
const stations = Number(process.env['BENCH_STATIONS'] ?? 500)
const years = Number(process.env['BENCH_YEARS'] ?? 5)
const url = process.env['DATABASE_URL'] ?? ''

/** A hand gun on four rolls, bent on the screen. */
const BENT: DragShape = { ...usualShape('steel', 1), linerState: 'worn' }
interface Row {
  what: string
  target: string
  measured: string
}
const rows: Row[] = []
const p95 = (times: number[]) => [...times].sort((a, b) => a - b)[Math.floor(times.length * 0.95)] ?? NaN

async function timed(runs: number, work: (i: number) => Promise<unknown>): Promise<number[]> {
  const times: number[] = []
  for (let i = 0; i < runs; i++) {
    const start = performance.now()
    await work(i)
    times.push(performance.now() - start)
  }
  return times
}

const job = process.env['BENCH_SEND']
if (job) {
  await sendAll(JSON.parse(job) as SendJob)
  process.exit(0)
}
await migrateDatabase(url, join(ROOT, 'src/server/db/migrations'))
const parts = compose({
  databaseUrl: url,
  webFolder: join(ROOT, 'dist/web'),
  onFault: (problem) => console.error(problem),
  signInsPerMinute: 1000,
})
const LEAD = { name: 'bench', password: 'bench bench' }
const start = performance.now()
const isKept = !(await isEmpty(parts.deps))
const { token } = isKept
  ? await signIn(parts.deps, { ...LEAD, from: 'bench' })
  : await firstLead(parts.deps, { shopName: 'Bench', zone: 'UTC', units: 'metric', ...LEAD })
if (isKept) console.log('world: kept from an earlier run')
else {
  const world = await buildWorld(parts.deps, { stations, years, seed: 7 }, (text) => console.log(text))
  console.log(
    `world: ${stations} stations, ${world.lives} part lives, ${world.usage} usage rows, built in ${Math.round((performance.now() - start) / 1000)} s`,
  )
}

const server = createServer(parts.app)
await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api`
const headers = { cookie: `idle_session=${token}`, 'content-type': 'application/json', 'x-idle-spool': '1' }
const ask = async (path: string, body?: unknown) => {
  const response = await fetch(base + path, {
    headers,
    ...(body ? { method: 'POST', body: JSON.stringify(body) } : {}),
  })
  const text = await response.text()
  if (!response.ok) throw new Error(`${path}: ${text}`)
  return text
}
const ids = (await parts.deps.db.select({ id: stationNow.stationId }).from(stationNow)).map((r) => r.id)
// Floor, guns and walks go by the fits that are kept.
const lifeDeps = { db: parts.deps.db, shops: parts.deps.shops, now: Date.now }
const lifeReader = new LifeReader(lifeDeps)
const [refit = NaN] = await timed(1, () => keepFits(lifeDeps, lifeReader.fits))
rows.push({
  what: 'lives of the whole shop fitted anew',
  target: '< 20 s',
  measured: `${(refit / 1000).toFixed(1)} s`,
})
const [again = NaN] = await timed(1, () => keepFits(lifeDeps, lifeReader.fits))
rows.push({ what: 'the same with nothing new', target: '(none set)', measured: `${(again / 1000).toFixed(1)} s` })
await lifeReader.read({ kind: 'tip', where: 'class:booth' })
const openings = await timed(10, () => lifeReader.read({ kind: 'tip', where: 'class:booth' }))
rows.push({ what: 'Part life opened again, p95', target: '< 200 ms', measured: `${p95(openings).toFixed(0)} ms` })
await timed(15, () => ask('/floor'))
const floor = await timed(40, () => ask('/floor'))
rows.push({ what: 'Floor answer, p95', target: '< 150 ms', measured: `${p95(floor).toFixed(0)} ms` })
await timed(5, (i) => ask(`/gun/${ids[i]}`))
const gun = await timed(60, (i) => ask(`/gun/${ids[(i * 7) % ids.length]}`))
rows.push({ what: 'station page, p95', target: '< 100 ms', measured: `${p95(gun).toFixed(0)} ms` })
const walks = await timed(20, (i) => ask(`/walk?minutes=${[10, 25, 60, 120][i % 4]}`))
rows.push({ what: 'walk for 500 guns, p95', target: '< 200 ms', measured: `${p95(walks).toFixed(0)} ms` })
for (const days of [90, 365]) {
  const paid = await timed(3, () => ask(`/payback?days=${days}`))
  rows.push({ what: `Payback, ${days} days`, target: '(none set)', measured: `${Math.max(...paid).toFixed(0)} ms` })
}
const walked = {
  // A device holds its area: a hall of sixty guns.
  entries: Array.from({ length: 2000 }, (_, i) => ({
    key: `bench-walk-${start.toFixed(3)}-${process.pid}-${i}`,
    stationId: ids[i % Math.min(60, ids.length)],
    happenedMs: Date.now() - 7_200_000 + i * 3000,
    looks: [
      { what: 'bore', grade: 'round' },
      { what: 'nozzleOpen', grade: i % 5 ? 'clean' : 'ring' },
    ],
  })),
}
const [synced = NaN] = await timed(1, () => ask('/walk/found', walked))
rows.push({
  what: '2,000 entries kept without a link, taken',
  target: '< 10 s',
  measured: `${(synced / 1000).toFixed(1)} s`,
})
const logs = await timed(30, (i) =>
  ask('/logbook', {
    key: `bench-${start.toFixed(3)}-${process.pid}-${i}`,
    acts: [{ stationId: ids[(i * 11) % ids.length], act: 'changed', position: 'tip', outReason: 'worn' }],
  }),
)
rows.push({ what: 'log a tip change, p95', target: '(none set)', measured: `${p95(logs).toFixed(0)} ms` })
const shiftDays = Math.floor(Date.now() / 60_000) % 700
const sheet = (kind: 'usage' | 'history') =>
  Array.from({ length: 20_000 }, (_, i) => {
    const place = `${1 + ((i * 7) % 10)}-${1 + (i % 50)}`
    const day = new Date(Date.UTC(2016, 0, 1) + (Math.floor(i / 50) + shiftDays) * DAY_MS).toISOString().slice(0, 10)
    return kind === 'usage' ? `${place},${day},2.5` : `${place},${day},"new tip, nozzle cleaned"`
  })
const history = ['place,date,what', ...sheet('history')].join('\n')
const usage = ['place,date,arc hours', ...sheet('usage')].join('\n')
const [totals = NaN] = await timed(1, () => ask('/ingest/take', { kind: 'usage', text: usage }))
rows.push({
  what: 'import of 20,000 shift totals into five years of history',
  target: '< 10 s',
  measured: `${(totals / 1000).toFixed(1)} s`,
})
const [imported = NaN] = await timed(1, () => ask('/ingest/take', { kind: 'history', text: history }))
rows.push({
  what: 'import of 20,000 notes into five years of history',
  target: '< 10 s',
  measured: `${(imported / 1000).toFixed(1)} s`,
})
const settling = startSettling({ databaseUrl: url, clockShiftMs: 0 }, (problem) => console.error(problem))
const sent = await whileSending(parts.deps, { base, seconds: 30, rate: RATE, askFloor: () => ask('/floor') })
const soakMin = Number(process.env['BENCH_SOAK_MIN'] ?? 0)
if (soakMin > 0) {
  const soak = await whileSending(parts.deps, { base, seconds: soakMin * 60, rate: 500, askFloor: () => ask('/floor') })
  rows.push({
    what: `memory grown in the second half of ${soakMin} min of 500 feeders, a row a second`,
    target: 'flat',
    measured: `${soak.grownMb.toFixed(0)} MB`,
  })
}
await settling.stop()
rows.push({ what: 'telemetry rows a second, 500 feeders, 30 s', target: '≥ 5,000', measured: sent.rowsPerS.toFixed(0) })
rows.push({ what: 'Floor meanwhile, p95', target: '< 150 ms', measured: `${p95(sent.floor).toFixed(0)} ms` })
rows.push({
  what: 'memory grown in the second half of it',
  target: 'flat',
  measured: `${sent.grownMb.toFixed(0)} MB`,
})
const random = makeRandom(3)
const lives = Array.from({ length: 100_000 }, () => drawWeibull(random, 2.2, 6))
const many = 100_000
const drawnLife = (() => {
  const random = makeRandom(11)
  return Array.from({ length: many }, () => drawWeibull(random, 2.2, 6))
})()
const cut = { time: drawnLife.map((t) => Math.min(t, 8)), event: drawnLife.map((t) => (t < 8 ? 1 : 0)) }
const weibull = await timed(5, () => Promise.resolve(fitWeibull(cut)))
rows.push({ what: 'Weibull of 100,000 lives', target: '< 300 ms', measured: `${Math.min(...weibull).toFixed(0)} ms` })
const columns = [0, 1, 2, 3, 4].map((j) => drawnLife.map((_, i) => (j === 0 ? 1 : (i * (j + 2)) % (j + 5))))
const aft = await timed(3, () => Promise.resolve(fitAft({ ...cut, columns })))
rows.push({
  what: 'regression of 100,000 lives on four',
  target: '< 1.5 s',
  measured: `${(Math.min(...aft) / 1000).toFixed(2)} s`,
})
const km = await timed(3, async () => kaplanMeier({ time: lives, event: lives.map((_, i) => (i % 4 ? 1 : 0)) }))
rows.push({ what: 'Kaplan–Meier of 100,000 lives', target: '(none set)', measured: `${Math.min(...km).toFixed(0)} ms` })
const bent = guessedSetup(BENT)
const picture = await timed(200, async (i) => {
  const setup = withValues(bent, { coils: i / 50 })
  explain(setup)
  forceProfile(setup)
})
rows.push({ what: 'Drag: one slider step, computed', target: '< 16 ms', measured: `${p95(picture).toFixed(1)} ms` })
const [wide, high] = [4000, 3000]
const drawn = new Float32Array(wide * high).map((_, i) => {
  const r = Math.hypot((i % wide) - 2000, Math.floor(i / wide) - 1500)
  return r < 150 ? 25 : r < 1000 ? 170 : 45
})
const measured = await timed(5, async () =>
  measureBore({
    image: { width: wide, height: high, data: drawn },
    centre: { x: 2010, y: 1492 },
    borePx: null,
    outerPx: null,
    outerMm: 8,
  }),
)
rows.push({
  what: 'bore on a 12-megapixel photo',
  target: '< 1.5 s',
  measured: `${Math.max(...measured).toFixed(0)} ms`,
})
rows.push({
  what: 'server memory (with the builder)',
  target: '< 400 MB',
  measured: `${Math.round(process.memoryUsage().rss / 1e6)} MB`,
})
const assets = join(ROOT, 'dist/web/assets')
const first = readFileSync(join(ROOT, 'dist/web/index.html'), 'utf8')
const script = readdirSync(assets)
  .filter((f) => f.endsWith('.js') && first.includes(f))
  .reduce((sum, f) => sum + gzipSync(readFileSync(join(assets, f))).length, 0)
rows.push({
  what: 'script before the first screen, gzipped',
  target: '< 250 kB',
  measured: `${Math.round(script / 1000)} kB`,
})
const program = process.env['BENCH_CHROMIUM']
if (program) {
  // Brought in only now: a browser's driver is no part of the server's memory.
  const { offlineStart } = await import('./offlinestart.ts')
  const opened = await offlineStart(parts.app, { token, chromium: program })
  rows.push({
    what: `Floor of ${stations} guns opened with no link, here / on a phone a quarter as fast`,
    target: '< 1 s',
    measured: `${opened.here.toFixed(0)} / ${opened.phone.toFixed(0)} ms`,
  })
}
console.table(rows)
server.closeAllConnections()
server.close()
await parts.close()
