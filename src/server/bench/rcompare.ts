import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fitAft } from '@core/life/aft.ts'
import { fitWeibull } from '@core/life/weibull.ts'
import { manyLives } from './statistics.ts'

/** The same hundred thousand lives, fitted here and by R's `survreg` in one run: how many times as fast, and to how many digits the same. */
const RUNS = 5
const WANTED = { weibull: 3, regression: 2 }
/** Two programs that stop at their own tolerance: beyond this they found something else. */
const CLOSE = 1e-6

const PROGRAM = `
suppressMessages(library(survival))
d <- read.csv(commandArgs(trailingOnly = TRUE)[1])
best <- function(f) { f(); min(sapply(1:${RUNS}, function(i) { gc(); system.time(f())[["elapsed"]] })) }
one <- function() survreg(Surv(time, event) ~ 1, data = d, dist = "weibull")
four <- function() survreg(Surv(time, event) ~ x1 + x2 + x3 + x4, data = d, dist = "weibull")
say <- function(f) cat(sprintf("%.3f", 1000 * best(f)), sprintf("%.12g", c(f()$scale, coef(f()))), "\\n")
say(one)
say(four)
`
interface Told {
  ms: number
  /** σ, then the coefficients. */
  found: number[]
}
const best = (fit: () => unknown): number => {
  fit()
  return Math.min(
    ...Array.from({ length: RUNS }, () => {
      const fromMs = performance.now()
      fit()
      return performance.now() - fromMs
    }),
  )
}

const { time, event, columns } = manyLives()
const folder = mkdtempSync(join(tmpdir(), 'idle-lives-'))
try {
  const file = join(folder, 'lives.csv')
  const rows = time.map((t, i) => [t, event[i], ...columns.slice(1).map((c) => c[i])].join(','))
  writeFileSync(file, ['time,event,x1,x2,x3,x4', ...rows].join('\n'))
  writeFileSync(join(folder, 'fit.R'), PROGRAM)
  const r = spawnSync('Rscript', ['--vanilla', join(folder, 'fit.R'), file], { encoding: 'utf8' })
  if (r.error || r.status !== 0)
    console.log(
      `R is not here, or has no package "survival": nothing to compare with.${r.stderr ? ` It said: ${r.stderr.trim().slice(0, 300)}` : ''}`,
    )
  else compare(r.stdout)
} finally {
  rmSync(folder, { recursive: true, force: true })
}

function compare(said: string): void {
  const [one, four] = said
    .trim()
    .split('\n')
    .map((line): Told => {
      const [ms = NaN, ...found] = line.trim().split(/\s+/).map(Number)
      return { ms, found }
    })
  const weibull = fitWeibull({ time, event })
  const regression = fitAft({ time, event, columns })
  if (!one || !four || !weibull.ok || !regression.ok) throw new Error('one of the fits did not come to an end')
  const rows = [
    {
      what: 'Weibull',
      r: one,
      own: [1 / weibull.shape, Math.log(weibull.scale)],
      times: best(() => fitWeibull({ time, event })),
      wanted: WANTED.weibull,
    },
    {
      ...{ what: 'regression on four', r: four, own: [Math.exp(regression.logSigma), ...regression.coefficients] },
      ...{ times: best(() => fitAft({ time, event, columns })), wanted: WANTED.regression },
    },
  ].map(({ what, r, own, times, wanted }) => {
    const apart = Math.max(...own.map((n, i) => Math.abs(n - (r.found[i] ?? NaN)) / Math.max(1, Math.abs(n))))
    return {
      what,
      'R, ms': r.ms,
      'here, ms': Math.round(times),
      faster: (r.ms / times).toFixed(1),
      wanted,
      apart: apart.toExponential(1),
      isMet: r.ms / times >= wanted && apart < CLOSE,
    }
  })
  console.table(rows)
  if (rows.some((row) => !row.isMet)) process.exitCode = 1
}
