import { type KindKey } from '@core/path/columns.ts'
import { actFor, WALKS, type LookKey } from '@core/walk/looks.ts'
import { isFoundGood } from '@core/walk/entry.ts'
import { READING } from '@core/reading/specs.ts'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { type WalkAnswer, type WalkStop } from '@contract/walk.ts'
import { type FloorWant } from '@contract/floor.ts'
import { minutes } from '@web/format/numbers.ts'
import { capital, countWord, donePhrase, guns, inN, partName } from '@web/format/words.ts'
import { type WalkAct, type WalkState } from './walkstate.ts'

const countedGuns = (n: number) => `${countWord(n)} ${guns(n)}`

/** "25 minutes: fourteen guns." */
export function walkSentence(walk: WalkAnswer): string {
  if (walk.areas.length === 0) return 'No guns yet, so nothing to look at.'
  if (walk.stops.length === 0) return `Nothing to look at: ${WALKS[walk.walk].name}.`
  return `${capital(countedGuns(walk.stops.length))} in ${minutes(walk.taskMin + walk.walkMin)}.`
}
/** What it takes and what it leaves. */
export function walkHonesty(walk: WalkAnswer): string {
  const open =
    walk.foundOpen.of > 0 ? ` Nozzles found open this week: ${walk.foundOpen.good} of ${walk.foundOpen.of}.` : ''
  if (walk.areas.length === 0) return 'Say on Floor how many there are.'
  if (walk.stops.length === 0) return `All of it was looked at lately.${open}`
  const spent = `${minutes(walk.taskMin)} at the guns, ${minutes(walk.walkMin)} of walking.`
  if (walk.left.length === 0) return `${spent} Nothing is left.${open}`
  return `${spent} ${capital(countedGuns(walk.left.length))} left; ${inN(walk.leftStops)} that one of those stops by this time tomorrow (guess).${open}`
}

/** "tip bore, nozzle; change the tip". */
export function stopWords(stop: WalkStop): string {
  const looks = stop.looks.map((l) => READING[l.what].name).join(', ')
  const wants = stop.wants.map(wantWords).join(', ')
  const rest = stop.followUps.map((f) => FOLLOW_UP_TEXT[f].do.toLowerCase()).join(', ')
  return [looks, wants, rest].filter(Boolean).join('; ')
}
export const wantWords = (w: Pick<FloorWant, 'act' | 'position'>) => `${w.act} the ${partName(w.position)}`

/** "Nozzle cleaned", as a key says it. */
export const actWords = ({ act, position }: WalkAct) => donePhrase(act, position)

/** What a tap or two puts right at once, of what was found; null: nothing at the booth does. */
export function mendOf({ what, grade }: { what: LookKey; grade: string }, at: KindKey): WalkAct | null {
  const act = actFor(what, grade)
  return act ? { act, position: at } : null
}

/** "A4: four looked at, one not as it should be; tip changed". */
export function entrySays(state: WalkState): string {
  const stop = state.stops[state.at]
  const bad = state.looks.filter((l) => !isFoundGood(l)).length
  const found =
    state.looks.length === 0
      ? ''
      : `${countWord(state.looks.length).toLowerCase()} looked at${bad > 0 ? `, ${countWord(bad).toLowerCase()} not as it should be` : ''}`
  const acts = state.acts.map((a) => actWords(a).toLowerCase()).join(', ')
  const settled = state.settled.map((task) => FOLLOW_UP_TEXT[task].done).join(', ')
  return `${stop?.name ?? ''}: ${[found, acts, settled].filter(Boolean).join('; ')}`
}

export function overSentence(state: WalkState, nowMs: number): string {
  const noted = state.noted.filter(Boolean).length
  const took = Math.max(1, Math.round((nowMs - state.startedMs) / 60_000))
  const skipped = state.noted.length - noted
  return `${capital(countedGuns(noted))} in ${took} min${skipped > 0 ? `; ${countWord(skipped).toLowerCase()} skipped` : ''}.`
}
