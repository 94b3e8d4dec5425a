import { type SurveyDeps } from '@server/floor/surveystore.ts'
import { type FloorDeps } from '@server/gunnow/positions.ts'
import { type HoldingDeps } from '@server/health/holding.ts'
import { type LifeDeps } from '@server/life/work.ts'
import { type ShareDeps } from '@server/parts/sharestore.ts'
import { type PutOnDeps } from '@server/payback/puton.ts'

/** Everything that any endpoint takes: put together by the wiring module, handed to each as far as it asks. */
export type AllDeps = FloorDeps & ShareDeps & LifeDeps & HoldingDeps & PutOnDeps & SurveyDeps
