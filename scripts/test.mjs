// npm test: set-up as for npm start, on a database of its own, then types, lint, layers, unit and server tests, browser tests.
// "npm test -- unit" runs one step; steps: types lint layers unit browser.
import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureModules, ensurePackages, isOurs, ROOT, say, SetupError, stopProcess, readJson } from './lib/machine.mjs'

const STEPS = ['types', 'lint', 'layers', 'unit', 'browser']
const wanted = process.argv.slice(2).filter((a) => STEPS.includes(a))
const steps = wanted.length > 0 ? STEPS.filter((s) => wanted.includes(s)) : STEPS
const BASE = existsSync('/dev/shm') ? '/dev/shm' : join(ROOT, '.data')
const PREFIX = 'idle-spool-test-'
const folder = join(BASE, `${PREFIX}${process.pid}`)

/** Folders of runs that were killed: their database is stopped and the folder removed. A run still going is left alone. */
async function sweep() {
  mkdirSync(BASE, { recursive: true })
  for (const name of readdirSync(BASE).filter((n) => n.startsWith(PREFIX))) {
    const owner = Number(name.slice(PREFIX.length))
    if (isOurs(owner, 'test.mjs')) continue
    const state = readJson(join(BASE, name, 'db', 'state.json'))
    if (state?.pid) await stopProcess(state.pid, join(BASE, name))
    rmSync(join(BASE, name), { recursive: true, force: true })
  }
}

function run(args, env = {}) {
  return new Promise((done) => {
    const child = spawn(process.execPath, args, {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, ...env, FORCE_COLOR: '0' },
    })
    child.on('exit', (code) => done(code ?? 1))
  })
}
const bin = (name) => join(ROOT, 'node_modules', name)
const counts = { passed: 0, failed: 0 }
const one = (name, code) => {
  counts[code === 0 ? 'passed' : 'failed']++
  say(`${code === 0 ? 'ok ' : 'NOT OK'} ${name}`)
}

/** Adds a reporter's totals; a run that told nothing counts as one failure, so silence never passes. */
function tally(name, report, code) {
  if (!report || report.passed + report.failed === 0) return one(name, 1)
  counts.passed += report.passed
  counts.failed += report.failed
  if (code !== 0 && report.failed === 0) counts.failed++
  say(`${code === 0 ? 'ok ' : 'NOT OK'} ${name}: ${report.passed} passed, ${report.failed} failed`)
}

async function main() {
  ensurePackages(['database', 'browser'])
  ensureModules()
  await sweep()
  mkdirSync(folder, { recursive: true })
  if (steps.includes('types')) one('types', await run([bin('typescript/bin/tsc'), '-p', 'tsconfig.json', '--noEmit']))
  if (steps.includes('lint')) one('lint', await run([bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0']))
  if (steps.includes('layers'))
    one(
      'layers',
      await run([bin('dependency-cruiser/bin/dependency-cruise.mjs'), '--config', '.dependency-cruiser.cjs', 'src']),
    )
  if (!steps.includes('unit') && !steps.includes('browser')) return
  const { startDatabase } = await import('./lib/mariadb.mjs')
  const database = await startDatabase({
    folder: join(folder, 'db'),
    wantedPort: 34460 + (process.pid % 400),
    isThrowaway: true,
  })
  const env = { TEST_DATABASE_URL: database.url, DATABASE_URL: database.url }
  try {
    if (steps.includes('unit')) {
      const out = join(folder, 'unit.json')
      const code = await run(
        [bin('vitest/vitest.mjs'), 'run', '--reporter=dot', '--reporter=json', `--outputFile.json=${out}`],
        env,
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
    }
    if (steps.includes('browser')) {
      const { buildIfStale } = await import('./build.mjs')
      await buildIfStale()
      const out = join(folder, 'browser.json')
      const code = await run([bin('@playwright/test/cli.js'), 'test', '--reporter=line,json'], {
        ...env,
        PLAYWRIGHT_JSON_OUTPUT_NAME: out,
      })
      const stats = readJson(out)?.stats
      tally('browser', stats && { passed: stats.expected, failed: stats.unexpected + stats.flaky }, code)
    }
  } finally {
    await database.stop()
  }
}

for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void sweepOwn().then(() => process.exit(130)))
async function sweepOwn() {
  const state = readJson(join(folder, 'db', 'state.json'))
  if (state?.pid) await stopProcess(state.pid, folder)
  rmSync(folder, { recursive: true, force: true })
}

try {
  await main()
} catch (problem) {
  console.error(problem instanceof SetupError ? problem.message : problem)
  counts.failed++
}
await sweepOwn()
say(`${counts.passed} passed, ${counts.failed} failed`)
process.exit(counts.failed === 0 && counts.passed > 0 ? 0 : 1)
