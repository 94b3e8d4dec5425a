import {
  bayes,
  bestOrder,
  expectedCost,
  greedyOrder,
  isFeasible,
  leastRepeatedCost,
  ratioOrder,
  repeatedLooks,
  type Looks,
} from '@core/diagnose/order.ts'
import { type Json, type Solver } from './case.ts'

type Inputs = { [key: string]: Json }
const list = (inputs: Inputs, key: string) => (inputs[key] as number[] | undefined) ?? []
const rows = (inputs: Inputs, key: string) => inputs[key] as number[][] | undefined

function looksOf(inputs: Inputs): Looks {
  const coverage = rows(inputs, 'coverage')
  const before = rows(inputs, 'before')
  return {
    probability: list(inputs, 'probability'),
    cost: list(inputs, 'cost'),
    isLastInferred: inputs['lastCheck'] === 'infer',
    ...('detection' in inputs ? { detection: list(inputs, 'detection') } : {}),
    ...('group' in inputs ? { group: list(inputs, 'group'), setupCost: list(inputs, 'setupCost') } : {}),
    ...(coverage ? { coverage } : {}),
    ...(before ? { before } : {}),
  }
}
const ordered =
  (over: Partial<Looks> = {}): Solver =>
  (inputs) => {
    const looks = { ...looksOf(inputs), ...over }
    const best = bestOrder(looks)
    const ratio = ratioOrder(looks)
    const greedy = greedyOrder(looks)
    const greedyCost = expectedCost(looks, greedy)
    const isHeld = isFeasible(looks, ratio)
    const cost = isHeld ? expectedCost(looks, ratio) : null
    return {
      expectedCost: best.cost,
      order: best.order,
      ratioOrder: ratio,
      ...(cost === null ? {} : { ratioOrderCost: cost, ratioRuleOptimal: cost <= best.cost * (1 + 1e-9) }),
      ratioOrderFeasible: isHeld,
      greedyOrder: greedy,
      greedyOrderCost: greedyCost,
      greedyAvailableOrder: greedy,
      greedyAvailableCost: greedyCost,
      greedyOptimal: greedyCost <= best.cost * (1 + 1e-9),
    }
  }

export const DIAGNOSE_SOLVERS: Readonly<Record<string, Solver>> = {
  'diagnosis-order/single-fault-perfect': ordered(),
  'diagnosis-order/single-fault-imperfect-one-look': ordered(),
  'diagnosis-order/independent-faults': ordered({ isIndependent: true }),
  'diagnosis-order/change-over-cost': ordered(),
  'diagnosis-order/overlapping-checks': ordered(),
  'diagnosis-order/precedence': ordered(),
  'diagnosis-order/single-fault-repeated-looks': (inputs) => {
    const looks = {
      probability: list(inputs, 'probability'),
      cost: list(inputs, 'cost'),
      detection: list(inputs, 'detection'),
      maxLooks: list(inputs, 'maxLooks'),
    }
    const made = repeatedLooks(looks)
    const ratioRuleOptimal = made.cost <= leastRepeatedCost(looks) * (1 + 1e-9)
    return {
      expectedCost: made.cost,
      sequence: made.sequence,
      ratioOrder: made.sequence,
      ratioRuleOptimal,
      probabilityFound: made.found,
    }
  },
  'diagnosis-order/bayes-update': (inputs) => {
    const made = bayes({
      prior: list(inputs, 'prior'),
      likelihood: rows(inputs, 'likelihood') ?? [],
      observed: (inputs['observed'] as (boolean | null)[] | undefined) ?? [],
      negativeChecks: (inputs['negativeChecks'] as unknown as { cause: number; detection: number }[] | undefined) ?? [],
    })
    return {
      posterior: made.posterior,
      logEvidence: made.logEvidence,
      evidence: made.logEvidence === null ? 0 : Math.exp(made.logEvidence),
      possible: made.isPossible,
    }
  },
}
