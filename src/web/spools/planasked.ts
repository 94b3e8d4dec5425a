import { type Assignment, type SpoolLeft } from '@core/spools/assign.ts'

// What the page and its worker say to each other; apart from the worker, which runs as soon as it is imported.
export interface PlanAsk {
  id: number
  /** Wire by wire, in grams. */
  groups: { spools: SpoolLeft[]; jobs: number[] }[]
}
export type PlanSaid = { id: number; done: number; of: number } | { id: number; plans: Assignment[] }
