import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { AUDIT, AUDIT_KEYS, auditCounts, type AuditKey, type ThereOrNot } from '@core/walk/audit.ts'
import { auditAnswer, type AuditAnswer } from '@contract/audit.ts'
import { getJson } from '@web/api/client.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { ago } from '@web/format/times.ts'
import { capital, countWord } from '@web/format/words.ts'
import { useSet } from '@web/rightparts/queries.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'

const useAudit = (areaId: string) =>
  useQuery({
    queryKey: ['audit', areaId],
    queryFn: () => getJson(`/audit${areaId ? `?areaId=${areaId}` : ''}`, auditAnswer),
  })

/** What each booth has at hand: a tap says it is there, another that it is missing. */
export function AuditPage() {
  const [params, setParams] = useSearchParams()
  const areaId = params.get('area') ?? ''
  const audit = useAudit(areaId)
  const say = useSet()
  // Said on this page: without a link it stands here before the server has it.
  const [said, setSaid] = useState<Record<string, Partial<Record<AuditKey, ThereOrNot>>>>({})
  const isPhone = useIsPhone()
  if (!audit.data)
    return (
      <main className="walk" aria-busy={audit.isPending}>
        <Waiting says="Reading the looks" problem={audit.error} />
      </main>
    )
  return (
    <main className="walk audit">
      <h1 className="sentence">{auditSentence(audit.data)}</h1>
      <p className="honesty dim">
        By what can be done, whichever tool does it. One tap: it is there; another: it is missing.
      </p>
      <div className="walk-which">
        <PickOne
          id="audit-area"
          label="Where"
          value={areaId}
          none="everywhere"
          options={audit.data.areas.map((a) => [a.id, a.name] as const)}
          onPick={(area) => setParams(area ? { area } : {})}
        />
      </div>
      <Trouble problem={say.error} />
      <ul className="audit-list">
        {audit.data.places.map((p) => (
          <Place
            key={p.stationId}
            place={{ ...p, has: { ...p.has, ...said[p.stationId] } }}
            nowMs={audit.data.nowMs}
            isPending={say.isPending}
            onSay={(name, value) =>
              say.mutate(
                { stationId: p.stationId, how: 'read', settings: [{ name, value }] },
                { onSuccess: () => setSaid((s) => ({ ...s, [p.stationId]: { ...s[p.stationId], [name]: value } })) },
              )
            }
          />
        ))}
      </ul>
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

/** "Three places lack something: hang the gun 2, snip wire 1. 20 not looked at." */
export function auditSentence({ places }: AuditAnswer): string {
  const { lacking, lackingPlaces, unseenPlaces } = auditCounts(places.map((p) => p.has))
  const rest = unseenPlaces > 0 ? ` ${countWord(unseenPlaces)} not looked at.` : ''
  if (lackingPlaces === 0)
    return unseenPlaces === places.length
      ? 'Nobody has looked at what is at hand.'
      : `Nothing is missing where somebody looked.${rest}`
  const things = lacking.map((l) => `${AUDIT[l.key].short} ${l.places}`).join(', ')
  return `${countWord(lackingPlaces)} ${lackingPlaces === 1 ? 'place lacks' : 'places lack'} something: ${things}.${rest}`
}

function Place(props: {
  place: AuditAnswer['places'][number]
  nowMs: number
  isPending: boolean
  onSay: (name: AuditKey, value: ThereOrNot) => void
}) {
  const { place, nowMs } = props
  return (
    <li>
      <p>
        <strong>{place.name}</strong>{' '}
        <span className="dim">{place.saidMs === null ? 'not looked at' : `${ago(place.saidMs, nowMs)} ago`}</span>
      </p>
      <div className="audit-keys" role="group" aria-label={`At hand at ${place.name}`}>
        {AUDIT_KEYS.map((key) => {
          const is = place.has[key]
          return (
            <Key
              size="low"
              key={key}
              className={is === 'missing' || is === 'there' ? `is-${is}` : undefined}
              disabled={props.isPending}
              onClick={() => props.onSay(key, is === 'there' ? 'missing' : 'there')}
            >
              {capital(AUDIT[key].short)}
              {is ? `: ${is}` : ''}
            </Key>
          )
        })}
      </div>
    </li>
  )
}
