import { type Overrun } from '@core/ledger/event.ts'
import { type GuideAnswer, type GuideStep, type MinutesLine } from '@contract/guide.ts'

export const OVERRUN_WORD: Record<Overrun, string> = {
  orings: 'stuck in its O-rings',
  nutWinds: 'nut wound the coil',
  baked: 'baked in by heat',
  partMissing: 'a part was missing',
  other: 'something else',
}

const whole = (minutes: number) => Math.max(1, Math.round(minutes))

/** "About 21 min; 4 in 5 are done in 29. Yours, 6 jobs." Whose figure it is is always said. */
export function minutesSentence({ median, p80, n, others, held }: MinutesLine): string {
  const why = held.map((h) => `${OVERRUN_WORD[h.reason]} ${h.n}`).join(', ')
  const span = `About ${whole(median)} min; 4 in 5 are done in ${whole(p80)}.${why ? ` Held up: ${why}.` : ''}`
  if (n === 0 && others === 0) return `${span} A guess until yours are logged.`
  const jobs = (count: number) => `${count} ${count === 1 ? 'job' : 'jobs'}`
  if (n === 0) return `${span} From ${jobs(others)} on other guns here.`
  return `${span} Yours, ${jobs(n)}${n < 5 ? ', and the guess behind them' : ''}.`
}

/** "Tip, on B7" or "Tip, Kelp guns". */
export const guideTitle = (g: GuideAnswer): string =>
  g.stationId ? `${g.title}, on ${g.name}` : `${g.title}, ${g.name} guns`

export function powerWord({ power, phase }: GuideStep): string {
  if (power !== 'either') return power === 'off' ? 'power off' : 'power on'
  return phase === 'close' ? 'before you leave it' : 'getting ready'
}

export interface StepGroup {
  word: string
  isLive: boolean
  from: number
  steps: GuideStep[]
}
/** Steps in runs of one state of the power, numbered through. */
export function byPower(steps: readonly GuideStep[]): StepGroup[] {
  const groups: StepGroup[] = []
  steps.forEach((step, i) => {
    const word = powerWord(step)
    const last = groups.at(-1)
    if (last?.word === word) last.steps.push(step)
    else groups.push({ word, isLive: step.power === 'on', from: i + 1, steps: [step] })
  })
  return groups
}
