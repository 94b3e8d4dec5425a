import { type KindKey } from '@core/path/columns.ts'
import { type RuleBasis } from '@core/life/kept.ts'
import { type z } from 'zod'
import { type LinerTerms } from '@core/liner/clauses.ts'
import { type LifeAnswer, type signsAnswer } from '@contract/life.ts'
import { type StockAnswer } from '@contract/stock.ts'
import { DomainError, type ProblemCode } from '@server/problem/problem.ts'
import { type FloorDeps } from '@server/gunnow/positions.ts'
import { type KeptDeps } from '@server/lifekept/kept.ts'
import { StockReader } from '@server/stock/stockreader.ts'
import { type Told } from './compared.ts'
import { keepFits, type KeepDeps } from './keep.ts'
import { type LifeQuery } from './gather.ts'
import { LifeReader } from './reader.ts'

export type LifeAsked =
  | { what: 'read'; query: LifeQuery }
  | { what: 'basis'; kindKey: KindKey; classKey: string }
  | { what: 'told'; kindKey: KindKey }
  | { what: 'stock'; until?: string | undefined }
  | { what: 'signs'; where?: string | undefined; terms: LinerTerms }
  /** Something was written that answers rest on. */
  | { what: 'forget' }

/** Whoever works lives out: a thread beside the server, or, in tests, the same thing at hand. */
export interface LifeWork {
  ask: (ask: LifeAsked) => Promise<unknown>
  /** "12 of 40" while the kept fits are made anew. */
  progress: () => string
}

/** Worked out at hand. */
export function livesAtHand(deps: KeepDeps): LifeWork {
  const [reader, stock] = [new LifeReader(deps), new StockReader(deps)]
  return {
    progress: () => '',
    ask: async (ask) => {
      if (ask.what === 'read') return reader.read(ask.query)
      if (ask.what === 'basis') return reader.basisOf(ask.kindKey, ask.classKey)
      if (ask.what === 'told') return reader.told(ask.kindKey)
      if (ask.what === 'signs') return reader.signs(ask)
      if (ask.what === 'stock') return stock.read(ask.until)
      stock.forget()
      reader.forget()
      await keepFits(deps, reader.fits)
      return null
    },
  }
}

/** What the thread refused comes out as the refusal it was. */
async function through<T>(work: LifeWork, ask: LifeAsked): Promise<T> {
  try {
    return (await work.ask(ask)) as T
  } catch (problem) {
    if (problem instanceof Error) throw problem
    const { code, message, details } = problem as { code: ProblemCode | null; message: string; details: string[] }
    throw code === null ? new Error(message) : new DomainError(code, message, details)
  }
}
export const askRead = (work: LifeWork, query: LifeQuery) => through<LifeAnswer>(work, { what: 'read', query })
export const askBasis = (work: LifeWork, kindKey: KindKey, classKey: string) =>
  through<Omit<RuleBasis, 'school'> | null>(work, { what: 'basis', kindKey, classKey })
export const askSigns = (work: LifeWork, ask: { where?: string | undefined; terms: LinerTerms }) =>
  through<z.infer<typeof signsAnswer>>(work, { what: 'signs', ...ask })
export const askStock = (work: LifeWork, until: string | undefined) =>
  through<StockAnswer>(work, { what: 'stock', until })
export const askTold = (work: LifeWork, kindKey: KindKey) => through<Told[]>(work, { what: 'told', kindKey })

/** What Part life takes: the floor to preview a rule on, the fits as they are kept, and whoever works them out. */
export type LifeDeps = FloorDeps & KeptDeps & { lifeWork: LifeWork }

/** What was written changes what is worked out from it. */
export async function thenForget<T>(deps: LifeDeps, answer: T): Promise<T> {
  deps.lives.forget()
  await deps.lifeWork.ask({ what: 'forget' })
  return answer
}
