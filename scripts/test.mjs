// npm test: set-up as for npm start, on a database of its own, then types, lint, layers, unit and server tests, browser tests.
// "npm test -- unit" runs one step; steps: types lint layers unit browser. Any other words run only the test files whose path holds one of them,
// and "npm test -- liner -t creeps" only the tests of those with "creeps" in their name.
import { spawn } from 'node:child_process'
import { randomInt } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureModules, ensurePackages, ROOT, say, SetupError, readJson } from './lib/machine.mjs'
import { lockFile } from './lib/lock.mjs'
import { stopLeftOver } from './lib/mariadb.mjs'
import { drawDay } from './lib/drawday.mjs'

const STEPS = ['types', 'lint', 'layers', 'unit', 'browser']
const given = process.argv.slice(2)
const named = given.includes('-t') ? given.slice(given.indexOf('-t'), given.indexOf('-t') + 2) : []
const rest = given.filter((a) => !named.includes(a))
const wanted = rest.filter((a) => STEPS.includes(a))
const words = rest.filter((a) => !STEPS.includes(a))
const isPart = words.length > 0 || named.length > 0
const steps = wanted.length > 0 ? STEPS.filter((s) => wanted.includes(s)) : isPart ? ['unit', 'browser'] : STEPS
const BASE = existsSync('/dev/shm') ? '/dev/shm' : join(ROOT, '.data')
const PREFIX = 'idle-spool-test-'
const folder = join(BASE, `${PREFIX}${process.pid}`)

/** Folders of runs that were killed: their database is stopped and the folder removed. A run still going is left alone. */
async function sweep() {
  mkdirSync(BASE, { recursive: true })
  for (const name of readdirSync(BASE).filter((n) => n.startsWith(PREFIX))) {
    const left = join(BASE, name)
    const lock = await lockFile(join(left, 'run.lock'))
    if (!lock) continue
    await stopLeftOver(join(left, 'db'))
    rmSync(left, { recursive: true, force: true })
    lock.release()
  }
}

/** `isHeld`: what it prints comes when it is done, lest two that run side by side are read as one. */
function run(args, { env = {}, isHeld = false } = {}) {
  return new Promise((done) => {
    const child = spawn(process.execPath, args, {
      cwd: ROOT,
      stdio: isHeld ? ['ignore', 'pipe', 'pipe'] : 'inherit',
      env: { ...process.env, ...env, FORCE_COLOR: '0' },
    })
    const held = []
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (piece) => held.push(piece))
    child.on('close', (code) => {
      process.stdout.write(Buffer.concat(held))
      done(code ?? 1)
    })
  })
}
const bin = (name) => join(ROOT, 'node_modules', name)
const counts = { passed: 0, failed: 0 }
/** What failed, by name: said once more at the very end, where it is seen even if what was printed before is cut. */
const fallen = []
const one = (name, code) => {
  counts[code === 0 ? 'passed' : 'failed']++
  if (code !== 0) fallen.push(name)
  say(`${code === 0 ? 'ok ' : 'NOT OK'} ${name}${sinceBegin()}`)
}
const begunMs = Date.now()
const sinceBegin = () => `  (${Math.round((Date.now() - begunMs) / 1000)} s since the beginning)`

/** Adds a reporter's totals; a run that told nothing counts as one failure, so silence never passes. */
function tally(name, report, code) {
  if (!report || report.passed + report.failed === 0) return one(name, 1)
  counts.passed += report.passed
  counts.failed += report.failed
  if (code !== 0 && report.failed === 0) {
    counts.failed++
    fallen.push(`${name}: ended with ${code}, though no test of it failed; what was thrown beside them is told above`)
  }
  say(`${code === 0 ? 'ok ' : 'NOT OK'} ${name}: ${report.passed} passed, ${report.failed} failed${sinceBegin()}`)
}

let drawnSeed = ''
/** The instant and zone drawn for what claims to hold on any day; said, so that a run can be repeated with TEST_DRAW. */
function drawnDay() {
  const drawn = drawDay(process.env.TEST_DRAW ?? String(randomInt(1_000_000)))
  say(`Drawn for this run: ${drawn.words}. The same again: TEST_DRAW=${drawn.seed} npm test`)
  drawnSeed = drawn.seed
  return { TEST_DRAWN_MS: String(drawn.atMs), TEST_DRAWN_ZONE: drawn.zone }
}

/** Where the time went: the files that took longest. */
function saySlowest(name, files) {
  const slowest = files.sort((a, b) => b.ms - a.ms).slice(0, 5)
  say(`Slowest of ${name}:`)
  for (const { file, ms } of slowest) say(`  ${(ms / 1000).toFixed(1).padStart(6)} s  ${file}`)
}
const inTree = (path) => (path.startsWith(ROOT) ? path.slice(ROOT.length + 1) : path)
const unitFallen = (report) =>
  report.testResults
    .filter((f) => f.status === 'failed')
    .flatMap((f) => {
      const tests = f.assertionResults.filter((t) => t.status === 'failed')
      const whys = tests.map((t) => `${inTree(f.name)}: ${t.fullName}\n      ${firstLines(t.failureMessages?.[0])}`)
      return whys.length > 0 ? whys : [`${inTree(f.name)}\n      ${firstLines(f.message)}`]
    })
const firstLines = (text = '') => text.split('\n').slice(0, 3).join('\n      ').slice(0, 600)
const unitFiles = (report) => report.testResults.map((f) => ({ file: inTree(f.name), ms: f.endTime - f.startTime }))
const msOfSuite = (suite) =>
  (suite.specs ?? []).flatMap((s) => s.tests.flatMap((t) => t.results)).reduce((sum, r) => sum + r.duration, 0) +
  (suite.suites ?? []).reduce((sum, s) => sum + msOfSuite(s), 0)
const specsOf = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specsOf)]
/** Journeys that failed once and passed on a fresh server: said by name, so that a race is hunted and not forgotten. */
function saySecondTries(report) {
  for (const spec of report.suites.flatMap(specsOf).filter((s) => s.tests.some((t) => t.status === 'flaky')))
    say(`  PASSED ONLY AT A SECOND TRY: e2e/${spec.file}:${spec.line} ${spec.title}`)
}
const browserFallen = (report) =>
  report.suites
    .flatMap(specsOf)
    .filter((spec) => spec.tests.some((t) => t.status === 'unexpected'))
    .map((spec) => {
      const why = spec.tests.flatMap((t) => t.results).find((r) => r.error)?.error?.message
      return `e2e/${spec.file}:${spec.line} ${spec.title}\n      ${firstLines(why)}`
    })
const browserFiles = (report) => report.suites.map((s) => ({ file: `e2e/${s.file}`, ms: msOfSuite(s) }))

/** Of the words given, whether any stands in a path of this kind of test: asked for the other kind alone, this one has nothing to run. */
const filesWith = (folder, ending) =>
  readdirSync(join(ROOT, folder), { recursive: true }).filter(
    (path) => ending.test(path) && words.some((w) => `${folder}/${path}`.includes(w)),
  )

async function main() {
  ensurePackages(['database', 'browser'])
  ensureModules()
  await sweep()
  mkdirSync(folder, { recursive: true })
  // Held as long as this run lives: whoever comes later sees by it whether the folder was left behind.
  await lockFile(join(folder, 'run.lock'))
  await look()
  if (!steps.includes('unit') && !steps.includes('browser')) return
  const { startDatabase } = await import('./lib/mariadb.mjs')
  const database = await startDatabase({
    folder: join(folder, 'db'),
    wantedPort: 34460 + (process.pid % 400),
    isThrowaway: true,
  })
  const env = { TEST_DATABASE_URL: database.url, DATABASE_URL: database.url, ...drawnDay() }
  try {
    await testUnits(env)
    await goJourneys(env)
  } finally {
    await database.stop()
  }
}

const TSC = bin('typescript/bin/tsc')
/** What is looked at without running it; types by their parts, lest all of them lie in memory at once. */
const LOOKS = {
  types: [
    [TSC, '-b', 'src/contract'],
    [TSC, '-p', 'src/web'],
    [TSC, '-p', '.'],
  ],
  lint: [[bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0']],
  layers: [[bin('dependency-cruiser/bin/dependency-cruise.mjs'), '--config', '.dependency-cruiser.cjs', 'src']],
}
/** Two at a time, each of them one core's. Journeys beside all else were tried: two cores are full with either, and it takes no less. */
async function look() {
  const go = async (name) => {
    if (!steps.includes(name)) return
    let worst = 0
    for (const args of LOOKS[name]) worst = Math.max(worst, await run(args, { isHeld: true }))
    one(name, worst)
  }
  await Promise.all([go('types'), go('lint').then(() => go('layers'))])
}

const isAsked = (folder, ending) => words.length === 0 || filesWith(folder, ending).length > 0

async function testUnits(env) {
  if (!steps.includes('unit') || !isAsked('src', /\.test\.tsx?$/)) return
  const out = join(folder, 'unit.json')
  const code = await run(
    [
      ...[bin('vitest/vitest.mjs'), 'run', ...words, ...named],
      ...['--reporter=dot', '--reporter=json', `--outputFile.json=${out}`],
    ],
    // The machine's own zone is anybody's.
    { env: { ...env, TZ: env.TEST_DRAWN_ZONE } },
  )
  const report = readJson(out)
  tally(
    'unit and server',
    report && {
      passed: report.numPassedTests,
      failed: report.numFailedTests + (report.numFailedTestSuites > 0 && report.numFailedTests === 0 ? 1 : 0),
    },
    code,
  )
  if (!report) return
  fallen.push(...unitFallen(report))
  saySlowest('unit and server', unitFiles(report))
}

async function goJourneys(env) {
  if (!steps.includes('browser') || !isAsked('e2e', /\.spec\.ts$/)) return
  const { buildIfStale } = await import('./build.mjs')
  await buildIfStale()
  const out = join(folder, 'browser.json')
  const only = named.length > 0 ? ['-g', named[1]] : []
  const code = await run([bin('@playwright/test/cli.js'), 'test', ...words, ...only, '--reporter=line,json'], {
    env: { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: out },
  })
  const report = readJson(out)
  const stats = report?.stats
  tally('browser', stats && { passed: stats.expected + stats.flaky, failed: stats.unexpected }, code)
  if (!report) return
  fallen.push(...browserFallen(report))
  saySecondTries(report)
  saySlowest('browser', browserFiles(report))
}

for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void sweepOwn().then(() => process.exit(130)))
async function sweepOwn() {
  await stopLeftOver(join(folder, 'db'))
  rmSync(folder, { recursive: true, force: true })
}

try {
  await main()
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  counts.failed++
}
await sweepOwn()
if (fallen.length > 0) say(`\nFailed${drawnSeed ? ` (TEST_DRAW=${drawnSeed})` : ''}:`)
for (const name of fallen) say(`  ${name}`)
say(`${counts.passed} passed, ${counts.failed} failed`)
process.exit(counts.failed === 0 && counts.passed > 0 ? 0 : 1)
