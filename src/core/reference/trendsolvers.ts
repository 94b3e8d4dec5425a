import { cusum } from '@core/trend/cusum.ts'
import { ewma } from '@core/trend/ewma.ts'
import { mannKendall } from '@core/trend/mannkendall.ts'
import { theilSen } from '@core/trend/theilsen.ts'
import { type Json, type Solver } from './case.ts'

type Inputs = { [key: string]: Json }
const list = (inputs: Inputs, key: string) => (inputs[key] as number[] | undefined) ?? []
const num = (inputs: Inputs, key: string) => inputs[key] as number
const rows = <T extends object>(made: readonly T[]): Json => made.map((m) => ({ ...m }) as unknown as Json)

const robust: Solver = (inputs) => {
  const [x, y] = [list(inputs, 'x'), list(inputs, 'y')]
  const line = theilSen(x, y)
  const { S, varS, z, p, pExact } = mannKendall(y)
  return { ...(line ?? {}), mannKendall: { S, varS, z, p, pExactNoTies: pExact } }
}

export const TREND_SOLVERS: Readonly<Record<string, Solver>> = {
  'trend/theil-sen+mann-kendall': robust,
  'trend/cusum': (inputs) => {
    const made = cusum(list(inputs, 'x'), {
      mean: num(inputs, 'mean'),
      sigma: num(inputs, 'sigma'),
      k: num(inputs, 'k'),
      h: num(inputs, 'h'),
      headStart: num(inputs, 'headStart'),
      resetAfterAlarm: inputs['resetAfterAlarm'] === true,
    })
    return { up: made.up, down: made.down, alarms: rows(made.alarms) }
  },
  'trend/ewma': (inputs) => {
    const made = ewma(list(inputs, 'x'), {
      mean: num(inputs, 'mean'),
      sigma: num(inputs, 'sigma'),
      lambda: num(inputs, 'lambda'),
      L: num(inputs, 'L'),
      timeVaryingLimits: inputs['timeVaryingLimits'] === true,
    })
    return { z: made.z, upper: made.upper, lower: made.lower, alarms: rows(made.alarms) }
  },
}
