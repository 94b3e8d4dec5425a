import { type NecksAt } from '@core/cell/neckneed.ts'

// What the page and its worker say to each other; apart from the worker, which runs as soon as it is imported.
export interface NeedSaid {
  id: number
  rows: NecksAt[]
}
