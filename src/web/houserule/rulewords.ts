import { type RuledBy, type ScopeType } from '@core/houserule/schools.ts'
import { type ChoiceLine } from '@contract/houserule.ts'
import { shortDate } from '@web/format/times.ts'

export interface ScopeNames {
  families: ReadonlyMap<string, string>
  classes: ReadonlyMap<string, string>
  feederTypes: ReadonlyMap<string, string>
}
export const NO_NAMES: ScopeNames = { families: new Map(), classes: new Map(), feederTypes: new Map() }

/** "for family Kelp", "on 4-roll feeders", "everywhere". */
export function scopeWord(type: ScopeType, key: string, names: ScopeNames): string {
  switch (type) {
    case 'site':
      return 'everywhere'
    case 'family':
      return `for family ${names.families.get(key) ?? 'no longer there'}`
    case 'feeder':
      return `on ${key}-roll feeders`
    case 'feederType':
      return `on feeder ${names.feederTypes.get(key) ?? 'no longer there'}`
    case 'mode':
      return `in ${key}`
    case 'class':
      return `for ${names.classes.get(key) ?? key}`
  }
}

/** Whose rule it is: the usual one, or the shop's with where, who and when. */
export function whose(choice: ChoiceLine | null, names: ScopeNames, zone: string): string {
  if (!choice) return 'the usual way; nobody here has chosen'
  const by = choice.chosenBy ? `, ${choice.chosenBy}` : ''
  const note = choice.note ? `: ${choice.note}` : ''
  return `chosen ${scopeWord(choice.scopeType, choice.scopeKey, names)}${by}, ${shortDate(choice.chosenMs, zone)}${note}`
}

/** Scopes that a gun itself offers, widest first. */
export function scopesOf(gun: RuledBy): { type: ScopeType; key: string }[] {
  const own = (['class', 'mode', 'feeder', 'feederType', 'family'] as const).flatMap((type) => {
    const key = gun[type]
    return key ? [{ type, key }] : []
  })
  return [{ type: 'site', key: '*' }, ...own]
}
