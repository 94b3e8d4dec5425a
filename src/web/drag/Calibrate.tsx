import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { calibrateKnob } from '@core/drag/calibrate.ts'
import { CAUTIONS } from '@core/guide/cautions.ts'
import { type DragAnswer } from '@contract/drag.ts'
import { force, type Units } from '@web/format/numbers.ts'
import { needed, useReadForm } from '@web/kit/readform.ts'
import { QuantityField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { ForceList, readForces } from './ForceList.tsx'
import { useCalibrate } from './queries.ts'

/** No knob has more marks. */
const MOST_MARK = 20
const WHY_NOT = {
  sameMark: 'Both marks are the same: set the knob to another.',
  notRising: 'It did not slip harder at the higher mark. See that the marks are not mixed up.',
  unsteady: 'The pulls at one mark differ too much to be one pull. Leave out the one that jerked.',
} as const

/** The knob calibrated: at two marks, how hard the wire slides through the closed rolls. */
export function Calibrate({ drag, units, onDone }: { drag: DragAnswer; units: Units; onDone: () => void }) {
  const [from = 0, to = 5] = drag.drag?.setup.shape.feeder.scale ?? []
  const mark = needed({ of: 'marks', from: 0, to: MOST_MARK })
  const form = useReadForm(
    { low: mark, high: mark },
    { low: String(from + Math.round((to - from) * 0.2)), high: String(from + Math.round((to - from) * 0.8)) },
  )
  const [texts, setTexts] = useState(['', ''])
  const calibrate = useCalibrate()
  const marks = form.now()
  const pulls = marks
    ? [marks.low, marks.high].map((m, i) => ({ mark: m, forcesN: readForces(texts[i] ?? '', units).forcesN }))
    : []
  const [one, two] = pulls
  const isWhole = pulls.every((p) => p.forcesN.length > 0)
  const made = isWhole && one && two ? calibrateKnob(one, two) : null
  return (
    <main className="drag pulls">
      <h1 className="sentence">What a mark of {drag.name}’s knob grips.</h1>
      <ol className="pull-steps">
        <li>Isolated, gun off, arm closed, the rolls that are on and the wire that is on. They must not turn back.</li>
        <li>Wire slack behind the rolls. Hook the scale on the wire at the outlet, pull forward until it slides.</li>
        <li>Three pulls at a low mark, three at a high one.</li>
      </ol>
      <p className="caution-line">{(['isolate', 'stab'] as const).map((h) => CAUTIONS[h].words).join(' ')}</p>
      <div className="pull-lists">
        {[0, 1].map((i) => (
          <div key={i} className="mark-pulls">
            <QuantityField
              form={form}
              name={i === 0 ? 'low' : 'high'}
              id={`mark-${i}`}
              label={i === 0 ? 'Low mark' : 'High mark'}
            />
            <ForceList
              id={`slip-${i}`}
              label="It slid at"
              like={i === 0 ? '43  45  44' : '150  153  156'}
              units={units}
              text={texts[i] ?? ''}
              onText={(v) => setTexts(texts.map((t, k) => (k === i ? v : t)))}
            />
          </div>
        ))}
      </div>
      <p className="pull-result" role="status">
        {made
          ? made.ok
            ? `A mark grips ${force(made.line.perMarkN, units)} more. It holds for this wire and these rolls.`
            : WHY_NOT[made.reason]
          : ''}
      </p>
      <Trouble problem={calibrate.error} />
      <div className="guide-keys">
        <Key
          tone="chalk"
          disabled={!made?.ok || calibrate.isPending}
          onClick={() =>
            one && two && calibrate.mutate({ stationId: drag.stationId, pulls: [one, two] }, { onSuccess: onDone })
          }
        >
          Keep it with the feeder
        </Key>
        <Key onClick={onDone}>Leave it</Key>
      </div>
    </main>
  )
}
