import { assignSpools } from '@core/spools/assign.ts'
import { type PlanAsk, type PlanSaid } from './planasked.ts'

const EVERY = 20

/** Two hundred jobs on two hundred spools, away from the page. */
self.onmessage = ({ data }: MessageEvent<PlanAsk>) => {
  const { id, groups } = data
  const plans = groups.map(({ spools, jobs }, i) =>
    assignSpools(spools, jobs, {
      onRound: (done, of) => {
        if (done % EVERY === 0) self.postMessage({ id, done: i + done / of, of: groups.length } satisfies PlanSaid)
      },
    }),
  )
  self.postMessage({ id, plans } satisfies PlanSaid)
}
