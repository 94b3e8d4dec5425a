import { fitAft } from '@core/life/aft.ts'
import { bestAge, costAt } from '@core/life/agereplace.ts'
import { bestBlock, renewals } from '@core/life/blockreplace.ts'
import { meanLife, residual } from '@core/life/residual.ts'
import { type LifeTimes } from '@core/life/kaplanmeier.ts'
import { logRank } from '@core/life/logrank.ts'
import { fitWeibull, profileIntervals, type WeibullRefusal } from '@core/life/weibull.ts'
import { type Json, type Solver } from './case.ts'

const REASON: Record<WeibullRefusal['reason'], string> = {
  noFailure: 'no-failures',
  shapeDiverges: 'shape-diverges',
  noMaximum: 'no-maximum',
}
const weibull: Solver = (inputs): { [key: string]: Json } => {
  const lives: LifeTimes = {
    time: inputs['time'] as number[],
    event: inputs['event'] as number[],
    ...(inputs['entry'] ? { entry: inputs['entry'] as number[] } : {}),
  }
  const fit = fitWeibull(lives)
  if (!fit.ok) return { exists: false, reason: REASON[fit.reason] }
  const profile = profileIntervals(lives, fit)
  const { ok: _, warnings: __, converged: ___, iterations: ____, ...numbers } = fit
  return {
    ...(numbers as unknown as { [key: string]: Json }),
    exists: true,
    seShape: fit.shape * fit.seLogShape,
    seScale: fit.scale * fit.seLogScale,
    profileShape: profile.shape,
    profileScale: profile.scale,
  }
}
const ranks: Solver = (inputs) => {
  const lives = {
    time: inputs['time'] as number[],
    event: inputs['event'] as number[],
    group: inputs['group'] as string[],
  }
  return logRank(lives) as unknown as { [key: string]: Json }
}

const aft: Solver = (inputs): { [key: string]: Json } => {
  const [time, event] = [inputs['time'] as number[], inputs['event'] as number[]]
  const names = inputs['designColumns'] as string[]
  const rows = inputs['designMatrix'] as number[][]
  const columns = names.map((_, j) => rows.map((row) => row[j] ?? 0))
  const fit = fitAft({ time, event, columns })
  const none = fitAft({ time, event, columns: [time.map(() => 1)] })
  if (!fit.ok || !none.ok) return { exists: false }
  const named = (values: readonly number[]) => Object.fromEntries(names.map((n, j) => [n, values[j] ?? 0]))
  const se = fit.covariance.map((row, j) => Math.sqrt(row[j] ?? 0))
  const sigma = Math.exp(fit.logSigma)
  return {
    exists: true,
    coefficients: named(fit.coefficients),
    ...{ logSigma: fit.logSigma, sigma, shape: 1 / sigma, logLik: fit.logLik, logLikNull: none.logLik },
    lrChi2: 2 * (fit.logLik - none.logLik),
    lrDf: names.length - 1,
    se: named(se),
    seLogSigma: se.at(-1) ?? 0,
    covariance: fit.covariance,
  }
}

const wearOf = (inputs: { [key: string]: Json }) => ({
  shape: inputs['shape'] as number,
  scale: inputs['scale'] as number,
})
const costsOf = (inputs: { [key: string]: Json }) => ({ cp: inputs['cp'] as number, cf: inputs['cf'] as number })
/** The ages the set asks the cost at, in scales. */
const ASKED = [0.25, 0.5, 1, 2]
const age: Solver = (inputs): { [key: string]: Json } => {
  const wear = wearOf(inputs)
  const best = bestAge(wear, costsOf(inputs))
  return {
    ...best,
    mttf: meanLife(wear),
    costAt: ASKED.map((share) => ({
      T: share * wear.scale,
      cost: costAt(wear, costsOf(inputs), share * wear.scale),
    })),
  }
}
const block: Solver = (inputs): { [key: string]: Json } => {
  const wear = wearOf(inputs)
  const { cp, cf } = costsOf(inputs)
  const { failuresBy, ...best } = bestBlock(wear, { cp, cf })
  const at = (T: number) => ({ T, M: failuresBy(T), cost: (cp + cf * failuresBy(T)) / T })
  return { ...best, costAt: ASKED.slice(0, 3).map((share) => at(share * wear.scale)) }
}
const renewal: Solver = (inputs): { [key: string]: Json } => {
  const times = inputs['t'] as number[]
  const { at } = renewals(wearOf(inputs), Math.max(...times))
  return { values: times.map((t) => ({ t, M: at(t) })) }
}
const left: Solver = (inputs): { [key: string]: Json } => ({
  values: (inputs['points'] as { a: number; x: number }[]).map(({ a, x }) => ({
    ...{ a, x },
    ...residual(wearOf(inputs), a, x),
  })),
})

export const LIFE_SOLVERS: Record<string, Solver> = {
  'weibull-mle': weibull,
  logrank: ranks,
  'aft-weibull': aft,
  'age-replacement/age': age,
  'age-replacement/block': block,
  'age-replacement/renewal': renewal,
  'age-replacement/residual': left,
}
