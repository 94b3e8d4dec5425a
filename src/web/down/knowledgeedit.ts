import { type CausePlace } from '@core/path/columns.ts'
import {
  type Cause,
  type Check,
  type Effort,
  type Knowledge,
  type Odds,
  type Outcome,
  type Symptom,
} from '@core/diagnose/knowledge.ts'

/** Changes a lead makes to why a gun stops; each gives a whole new one, which the server looks through. */
export type Edit =
  | { do: 'up' | 'out'; symptom: string; cause: string }
  | { do: 'in'; symptom: string; cause: string }
  | { do: 'odds'; symptom: string; cause: string; odds: Odds }
  | { do: 'words'; cause: string; says: string }
  | { do: 'effort'; cause: string; effort: Effort }
  | { do: 'newCause'; symptom: string; says: string; at: CausePlace }
  | { do: 'shows'; check: string; shows: number }
  | { do: 'check'; check: string; change: Partial<Pick<Check, 'do' | 'how' | 'minutes'>> }
  | { do: 'newCheck'; says: string }
  | { do: 'noCheck'; check: string }
  | { do: 'answer'; check: string; outcome: string; says: string }
  | { do: 'newAnswer'; check: string; says: string }
  | { do: 'noAnswer'; check: string; outcome: string }
  | { do: 'point'; check: string; outcome: string; cause: string; isOn: boolean }

const onSymptom = (k: Knowledge, key: string, change: (causes: string[]) => string[]): Knowledge => ({
  ...k,
  symptoms: k.symptoms.map((s) => (s.key === key ? withCauses(s, change([...s.causes])) : s)),
})
/** What was said of a cause goes with it. */
function withCauses(s: Symptom, causes: string[]): Symptom {
  const left = <T>(of: Readonly<Record<string, T>> | undefined) =>
    of && Object.fromEntries(Object.entries(of).filter(([key]) => causes.includes(key)))
  const [odds, source] = [left(s.odds), left(s.source)]
  return { ...s, causes, ...(odds ? { odds } : {}), ...(source ? { source } : {}) }
}
const onCause = (k: Knowledge, key: string, change: (cause: Cause) => Cause): Knowledge => ({
  ...k,
  causes: k.causes.map((c) => (c.key === key ? change(c) : c)),
})
const onCheck = (k: Knowledge, key: string, change: (check: Check) => Check): Knowledge => ({
  ...k,
  checks: k.checks.map((c) => (c.key === key ? change(c) : c)),
})
const onAnswer = (k: Knowledge, at: { check: string; outcome: string }, change: (outcome: Outcome) => Outcome) =>
  onCheck(k, at.check, (c) => ({ ...c, outcomes: c.outcomes.map((o) => (o.key === at.outcome ? change(o) : o)) }))

/** A key nobody has yet: own1, own2 … */
function freeKey(taken: readonly { key: string }[]): string {
  const keys = new Set(taken.map((t) => t.key))
  let n = 1
  while (keys.has(`own${n}`)) n++
  return `own${n}`
}
const WELL: Outcome = { key: 'well', says: 'All well there', points: [] }
const newCheck = (key: string, says: string): Check => ({
  ...{ key, do: says, how: '', effort: 'E1', sign: 'look', hazards: [], drawing: null, shows: 0.8 },
  outcomes: [{ key: 'own1', says: 'Something is off', points: [] }, WELL],
})
const newCause = (key: string, { says, at }: { says: string; at: CausePlace }): Cause => ({
  ...{ key, says, at, kind: 'feed' },
  fix: { do: 'Put it right', effort: 'E1', act: null, position: null, hazards: ['isolate'] },
})

export function edited(k: Knowledge, edit: Edit): Knowledge {
  switch (edit.do) {
    case 'up':
      return onSymptom(k, edit.symptom, (causes) => oneUp(causes, edit.cause))
    case 'out':
      return onSymptom(k, edit.symptom, (causes) => causes.filter((c) => c !== edit.cause))
    case 'in':
      return onSymptom(k, edit.symptom, (causes) => (causes.includes(edit.cause) ? causes : [...causes, edit.cause]))
    case 'odds':
      return {
        ...k,
        symptoms: k.symptoms.map((s) =>
          s.key === edit.symptom ? { ...s, odds: { ...s.odds, [edit.cause]: edit.odds } } : s,
        ),
      }
    case 'words':
      return onCause(k, edit.cause, (c) => ({ ...c, says: edit.says }))
    case 'effort':
      return onCause(k, edit.cause, (c) => ({ ...c, fix: { ...c.fix, effort: edit.effort } }))
    case 'newCause': {
      const key = freeKey(k.causes)
      const made = { ...k, causes: [...k.causes, newCause(key, edit)] }
      return onSymptom(made, edit.symptom, (causes) => [...causes, key])
    }
    default:
      return editedCheck(k, edit)
  }
}
function oneUp(causes: string[], cause: string): string[] {
  const at = causes.indexOf(cause)
  if (at < 1) return causes
  const [before = ''] = causes.splice(at - 1, 1)
  causes.splice(at, 0, before)
  return causes
}

type CheckEdit = Exclude<Edit, { do: 'up' | 'out' | 'in' | 'odds' | 'words' | 'effort' | 'newCause' }>
function editedCheck(k: Knowledge, edit: CheckEdit): Knowledge {
  switch (edit.do) {
    case 'shows':
      return onCheck(k, edit.check, (c) => ({ ...c, shows: edit.shows }))
    case 'check':
      return onCheck(k, edit.check, (c) => ({ ...c, ...edit.change }))
    case 'newCheck':
      return { ...k, checks: [...k.checks, newCheck(freeKey(k.checks), edit.says)] }
    case 'noCheck':
      return { ...k, checks: k.checks.filter((c) => c.key !== edit.check) }
    case 'answer':
      return onAnswer(k, edit, (o) => ({ ...o, says: edit.says }))
    case 'newAnswer':
      // Before the last, which is the one where all is well.
      return onCheck(k, edit.check, (c) => ({
        ...c,
        outcomes: c.outcomes.toSpliced(-1, 0, { key: freeKey(c.outcomes), says: edit.says, points: [] }),
      }))
    case 'noAnswer':
      return onCheck(k, edit.check, (c) => ({ ...c, outcomes: c.outcomes.filter((o) => o.key !== edit.outcome) }))
    case 'point':
      return onAnswer(k, edit, (o) => ({
        ...o,
        points: [...o.points.filter((p) => p !== edit.cause), ...(edit.isOn ? [edit.cause] : [])],
      }))
  }
}
