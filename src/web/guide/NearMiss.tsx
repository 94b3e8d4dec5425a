import { Key } from '@web/kit/Keys.tsx'
import { hazardName, HAZARDS, type Hazard } from '@core/guide/cautions.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useNearMiss } from './queries.ts'

/** The second of two taps: what it nearly was. No name is kept. */
export function NearMiss({ stationId, onDone }: { stationId: string; onDone: () => void }) {
  const send = useNearMiss()
  const all: (Hazard | 'other')[] = [...HAZARDS, 'other']
  return (
    <div className="more-form">
      <p>Nobody hurt. What nearly was it? No name is kept. If somebody is hurt: the site’s own first aid, now.</p>
      <div className="more-keys">
        {all.map((hazard) => (
          <Key
            key={hazard}
            size="low"
            disabled={send.isPending}
            onClick={() => send.mutate({ stationId, hazard }, { onSuccess: onDone })}
          >
            {hazardName(hazard)}
          </Key>
        ))}
      </div>
      <Trouble problem={send.error} />
    </div>
  )
}
