import { type LinerAnswer } from '@contract/liner.ts'
import { type Units } from '@web/format/numbers.ts'
import { type GateAt } from '@web/guide/StepWalk.tsx'
import { Air } from './Air.tsx'
import { type LinerJob } from './job.ts'
import { OldLinerForm } from './OldLinerForm.tsx'
import { Push } from './Push.tsx'
import { Trim } from './Trim.tsx'

export interface GateProps {
  at: GateAt
  liner: LinerAnswer
  units: Units
  job: LinerJob
  onJob: (job: LinerJob) => void
  /** This one is spoiled: the job goes on with another. */
  onAnother: () => void
}

/** Where the job measures, asks or cuts, in place of "done". Done is said in the same breath, so that neither is lost. */
export function LinerGate(props: GateProps) {
  switch (props.at.step.gate) {
    case 'oldLiner':
      return <OldLinerForm {...props} />
    case 'air':
      return <Air {...props} />
    case 'push':
      return <Push {...props} />
    case 'trim':
    case 'trimFeeder':
      return <Trim {...props} />
    default:
      return null
  }
}
