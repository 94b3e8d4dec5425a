import { type GuideStep } from '@contract/guide.ts'
import { afterStep } from '@web/guide/walk.ts'
import { type LinerJob } from './job.ts'

/** The answer and the step done, in one: the job that is kept has both or neither. */
export const answered = (job: LinerJob, steps: readonly GuideStep[], answer: Partial<LinerJob>): LinerJob => ({
  ...job,
  ...answer,
  walk: afterStep(steps, job.walk, { said: 'done', atMs: Date.now() }),
})
