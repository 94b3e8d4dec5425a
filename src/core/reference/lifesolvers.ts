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
export const LIFE_SOLVERS: Record<string, Solver> = { 'weibull-mle': weibull, logrank: ranks }
