import { Button } from 'react-bootstrap'
import { useState, type ReactNode } from 'react'
import { Link, useSearchParams } from 'react-router'
import { middleMark } from '@core/drag/explain.ts'
import { type DragAnswer } from '@contract/drag.ts'
import { type Units } from '@web/format/numbers.ts'
import { AtCell } from '@web/kit/atcell.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { useMe } from '@web/people/queries.ts'
import { PickGun } from '@web/places/PickGun.tsx'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { Calibrate } from './Calibrate.tsx'
import { freeSetup } from './dragstate.ts'
import { DragView } from './DragView.tsx'
import { Pulls } from './Pulls.tsx'
import { useDrag } from './queries.ts'

/** Drag: a gun of the shop, or one of nobody's. */
export function DragPage() {
  const [params, setParams] = useSearchParams()
  const stationId = params.get('gun') ?? ''
  const drag = useDrag(stationId)
  const me = useMe()
  const units = me.data?.units ?? 'metric'
  const head = <Choose stationId={stationId} onGun={(id) => setParams(id ? { gun: id } : {})} />
  if (stationId === '') return <Free units={units} head={head} />
  if (!drag.data)
    return (
      <main className="drag" aria-busy={drag.isPending}>
        <Waiting says="Working out the drag" problem={drag.error} />
      </main>
    )
  return <OfGun key={stationId} drag={drag.data} units={units} head={head} />
}

function Choose({ stationId, onGun }: { stationId: string; onGun: (id: string) => void }) {
  return (
    <div className="drag-choose">
      <PickGun id="drag-gun" none="one of nobody’s" value={stationId} onPick={onGun} />
    </div>
  )
}

function Free({ units, head }: { units: Units; head: ReactNode }) {
  const isPhone = useIsPhone()
  const real = freeSetup()
  return (
    <>
      <DragView
        name="it"
        real={real}
        mark={middleMark(real)}
        sources={{}}
        spans={null}
        isCalibrated={false}
        nowMs={0}
        units={units}
        head={head}
        foot={<p className="small-print">Every number here is a guess. Choose a gun to see what is read of it.</p>}
      />
      {isPhone ? <PhoneMore /> : null}
    </>
  )
}

function OfGun({ drag, units, head }: { drag: DragAnswer; units: Units; head: ReactNode }) {
  const isPhone = useIsPhone()
  const [params] = useSearchParams()
  const asked = params.get('do')
  const [doing, setDoing] = useState<'pulls' | 'knob' | null>(asked === 'pulls' || asked === 'knob' ? asked : null)
  if (!drag.drag)
    return (
      <main className="drag">
        <div className="drag-head">
          <h1 className="sentence">Nothing can be said of {drag.name}: nobody told which wire is on.</h1>
          {head}
        </div>
        <Link className="btn" to={`/gun/${drag.stationId}`}>
          {drag.name}
        </Link>
      </main>
    )
  if (doing === 'pulls')
    return (
      <AtCell value={drag.isCell}>
        <Pulls drag={drag} units={units} onDone={() => setDoing(null)} />
      </AtCell>
    )
  if (doing === 'knob') return <Calibrate drag={drag} units={units} onDone={() => setDoing(null)} />
  const { setup, sources, spans } = drag.drag
  return (
    <>
      <DragView
        key={JSON.stringify(setup)}
        name={drag.name}
        real={setup}
        mark={drag.knob?.mark ?? middleMark(setup)}
        sources={sources}
        spans={spans}
        isCalibrated={drag.calibratedMs !== null}
        nowMs={drag.nowMs}
        units={units}
        head={head}
        foot={
          <section aria-label="Tell it better">
            <h2>Tell it better</h2>
            <div className="drag-tries">
              <Button variant="" onClick={() => setDoing('pulls')}>
                Friction from two pulls
              </Button>
              <Button variant="" onClick={() => setDoing('knob')}>
                {drag.calibratedMs === null ? 'Calibrate the knob' : 'Calibrate the knob again'}
              </Button>
              <Link className="btn" to={`/read?gun=${drag.stationId}`}>
                Readings of {drag.name}
              </Link>
            </div>
          </section>
        }
      />
      {isPhone ? <PhoneMore /> : null}
    </>
  )
}
