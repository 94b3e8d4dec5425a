import { assignSpools } from '@core/spools/assign.ts'
import { poissonCounts } from '@core/stock/counts.ts'
import { buyOnce, buyOnceNormal, costOfOnce } from '@core/stock/once.ts'
import { orderSize, type OrderCosts } from '@core/stock/ordersize.ts'
import { normalReorder, poissonReorder } from '@core/stock/reorder.ts'
import { type Json, type Solver } from './case.ts'

type Inputs = { [key: string]: Json }
const num = (inputs: Inputs, key: string) => inputs[key] as number
const list = (inputs: Inputs, key: string) => inputs[key] as number[]

const poisson: Solver = (inputs) => {
  const made = poissonReorder({
    perDay: num(inputs, 'ratePerDay'),
    leadDays: num(inputs, 'leadTimeDays'),
    service: num(inputs, 'serviceLevel'),
  })
  return {
    meanLeadTimeDemand: made.meanDemand,
    reorderPoint: made.point,
    serviceAtPoint: made.service,
    serviceBelowPoint: made.serviceBelow,
    expectedShortagePerCycle: made.shortage,
    safetyStock: made.safety,
  }
}

const normal: Solver = (inputs) => {
  const made = normalReorder({
    perDay: num(inputs, 'meanPerDay'),
    sdPerDay: num(inputs, 'sdPerDay'),
    leadDays: num(inputs, 'leadTimeDays'),
    sdLeadDays: num(inputs, 'sdLeadTimeDays'),
    service: num(inputs, 'serviceLevel'),
  })
  return {
    ...{ meanLeadTimeDemand: made.meanDemand, sdLeadTimeDemand: made.sdDemand, z: made.z, safetyStock: made.safety },
    ...{ reorderPoint: made.point, expectedShortagePerCycle: made.shortage },
  }
}

const newsvendor: Solver = (inputs) => {
  const costs = { under: num(inputs, 'underageCost'), over: num(inputs, 'overageCost') }
  const given = inputs['parameters'] as { mean: number; sd?: number }
  if (inputs['distribution'] === 'normal') {
    const made = buyOnceNormal({ mean: given.mean, sd: given.sd ?? 0 }, costs)
    return { criticalRatio: made.ratio, quantity: made.quantity, expectedCost: made.cost }
  }
  const demand = poissonCounts(given.mean)
  const made = buyOnce(demand, costs)
  const beside = [-2, -1, 0, 1, 2].map((d) => made.quantity + d).filter((q) => q >= 0)
  return {
    ...{ criticalRatio: made.ratio, quantity: made.quantity, alsoOptimal: made.alsoOptimal, expectedCost: made.cost },
    costNeighbours: beside.map((quantity) => ({ quantity, cost: costOfOnce(demand, quantity, costs) })),
  }
}

const eoq: Solver = (inputs) => {
  const rate = inputs['holdingRate']
  const bands = inputs['breaks'] as { minQuantity: number; unitPrice: number }[]
  const of: OrderCosts = {
    perYear: num(inputs, 'annualDemand'),
    orderCost: num(inputs, 'orderCost'),
    holding: typeof rate === 'number' ? { ofPrice: rate } : { each: num(inputs, 'holdingCostPerUnitYear') },
    discount: inputs['discount'] === 'incremental' ? 'steps' : 'all',
    bands: bands.map((b) => ({ from: b.minQuantity, each: b.unitPrice })),
  }
  const made = orderSize(of)
  return {
    ...{ quantity: made.quantity, annualCost: made.cost, unitPriceAtQuantity: made.each },
    ...{
      ordersPerYear: made.ordersPerYear,
      bestIntegerQuantity: made.whole.quantity,
      bestIntegerCost: made.whole.cost,
    },
  }
}

/** An assignment is as good as another that comes to the same: it is judged by what it comes to. */
const assignment: Solver = (inputs) => {
  const least = list(inputs, 'minUsable')
  const spools = list(inputs, 'spoolRemaining').map((left, i) => ({ left, leastUsable: least[i] ?? 0 }))
  const jobs = list(inputs, 'jobNeed')
  const made = assignSpools(spools, jobs)
  const told: { [key: string]: Json } =
    made.jobs === jobs.length
      ? { feasible: true, scrap: made.scrap, spoolsUsedAtMinScrap: made.spools }
      : { feasible: false, maxJobsAssigned: made.jobs, scrapAtMaxJobs: made.scrap, spoolsAtMaxJobs: made.spools }
  return told
}

export const STOCK_SOLVERS: Readonly<Record<string, Solver>> = {
  'reorder/poisson-reorder': poisson,
  'reorder/normal-reorder': normal,
  'reorder/newsvendor': newsvendor,
  'reorder/eoq': eoq,
  'spool-assignment/': assignment,
}
