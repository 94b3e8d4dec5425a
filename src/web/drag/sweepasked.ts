import { type DragSetup, type Guesses } from '@core/drag/setup.ts'
import { type Sensitivity, type Spread } from '@core/drag/sweep.ts'

// What the page and its worker say to each other; apart from the worker, which runs as soon as it is imported.
export interface SweepAsk {
  id: number
  setup: DragSetup
  spans: Guesses
}
export interface SweepAnswer {
  id: number
  spread: Spread
  order: Sensitivity[]
}
