import { enoughNecks, neckChain } from '@core/cell/necks.ts'
import { type Json, type Solver } from './case.ts'

type Inputs = { [key: string]: Json }
const num = (inputs: Inputs, key: string) => inputs[key] as number
const roundOf = (inputs: Inputs) => ({
  robots: num(inputs, 'robots'),
  places: num(inputs, 'places'),
  meanLifeH: num(inputs, 'meanLifeH'),
  meanMendH: num(inputs, 'meanMendH'),
})

const chain: Solver = (inputs) => ({ ...neckChain({ ...roundOf(inputs), spares: num(inputs, 'spares') }) })
const enough: Solver = (inputs) => ({
  ...(enoughNecks(roundOf(inputs), num(inputs, 'risk')) ?? { spares: null, pNoneReadyAtSwap: null }),
})

export const CELL_SOLVERS: Readonly<Record<string, Solver>> = {
  'spare-necks/spare-necks': chain,
  'spare-necks/enough-necks': enough,
}
