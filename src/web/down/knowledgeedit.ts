import { type Cause, type Effort, type Knowledge } from '@core/diagnose/knowledge.ts'

/** Changes a lead makes to why a gun stops; each gives a whole new one, which the server looks through. */
export type Edit =
  | { do: 'up' | 'out'; symptom: string; cause: string }
  | { do: 'in'; symptom: string; cause: string }
  | { do: 'words'; cause: string; says: string }
  | { do: 'effort'; cause: string; effort: Effort }
  | { do: 'shows'; check: string; shows: number }

const onSymptom = (k: Knowledge, key: string, change: (causes: string[]) => string[]): Knowledge => ({
  ...k,
  symptoms: k.symptoms.map((s) => (s.key === key ? { ...s, causes: change([...s.causes]) } : s)),
})
const onCause = (k: Knowledge, key: string, change: (cause: Cause) => Cause): Knowledge => ({
  ...k,
  causes: k.causes.map((c) => (c.key === key ? change(c) : c)),
})

export function edited(k: Knowledge, edit: Edit): Knowledge {
  switch (edit.do) {
    case 'up':
      return onSymptom(k, edit.symptom, (causes) => {
        const at = causes.indexOf(edit.cause)
        if (at < 1) return causes
        const [before = ''] = causes.splice(at - 1, 1)
        causes.splice(at, 0, before)
        return causes
      })
    case 'out':
      return onSymptom(k, edit.symptom, (causes) => causes.filter((c) => c !== edit.cause))
    case 'in':
      return onSymptom(k, edit.symptom, (causes) => (causes.includes(edit.cause) ? causes : [...causes, edit.cause]))
    case 'words':
      return onCause(k, edit.cause, (c) => ({ ...c, says: edit.says }))
    case 'effort':
      return onCause(k, edit.cause, (c) => ({ ...c, fix: { ...c.fix, effort: edit.effort } }))
    case 'shows':
      return { ...k, checks: k.checks.map((c) => (c.key === edit.check ? { ...c, shows: edit.shows } : c)) }
  }
}
