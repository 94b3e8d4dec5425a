import { type AtKnob, type Explained } from '@core/drag/explain.ts'
import { type DragSetup } from '@core/drag/setup.ts'
import { force, twoFigures, type Units } from '@web/format/numbers.ts'
import { aboutMarks, LIMIT_WORD } from './dragwords.ts'

const WIDTH = 1232
const PAD = 24
const LINE_Y = 44

/** Where a mark lies on the scale drawn. */
export function scaleX(setup: DragSetup, mark: number): number {
  const [from, to] = setup.shape.feeder.scale
  return PAD + (Math.min(to, Math.max(from, mark)) - from) * ((WIDTH - 2 * PAD) / (to - from))
}

/** The window on the feeder's own scale. Not calibrated it has newtons and no numbers: only higher and lower can be told. */
export function KnobScale(props: {
  setup: DragSetup
  said: Explained
  at: AtKnob
  isCalibrated: boolean
  units: Units
  onMark: (mark: number) => void
}) {
  const { setup, said, at, isCalibrated } = props
  const { window: w } = said
  const [from, to] = setup.shape.feeder.scale
  const x = (mark: number) => scaleX(setup, mark)
  const low = w.lowMark ?? to
  const high = w.highMark
  const ticks = Array.from({ length: Math.round(to - from) + 1 }, (_, i) => from + i)
  const isShut = !w.isOpen
  return (
    <section className="knob-scale" aria-label="The knob">
      <div className="knob-line">
        <svg viewBox={`0 0 ${WIDTH} 84`} role="img" aria-label={windowWords(props)}>
          <path d={`M${x(from)} ${LINE_Y}H${x(to)}`} className="drag-axis" />
          {isShut ? null : <path d={`M${x(low)} ${LINE_Y}H${x(high)}`} className="knob-window" />}
          <path d={`M${x(from)} ${LINE_Y - 8}H${x(low)}`} className="knob-slips" />
          <path d={`M${x(high)} ${LINE_Y + 8}H${x(to)}`} className="knob-nests" />
          <text x={x(from)} y={LINE_Y - 20} className="drag-label">
            slips in feeding
          </text>
          {isShut ? (
            <text x={WIDTH / 2} y={LINE_Y - 20} textAnchor="middle" className="knob-word">
              no window
            </text>
          ) : (
            <text x={(x(low) + x(high)) / 2} y={LINE_Y - 20} textAnchor="middle" className="knob-word">
              {said.width === 'comfortable' ? 'room' : said.width}
            </text>
          )}
          <text x={x(to)} y={LINE_Y - 20} textAnchor="end" className="drag-label">
            {high < to ? (w.limit === 'crush' ? 'flattens the wire' : 'nests when stopped') : LIMIT_WORD.arm}
          </text>
          {ticks.map((mark) => (
            <g key={mark}>
              <path d={`M${x(mark)} ${LINE_Y - 4}V${LINE_Y + 14}`} className="drag-axis" />
              <text x={x(mark)} y={LINE_Y + 34} textAnchor="middle" className="drag-label">
                {isCalibrated ? mark : force(Math.max(0, w.traction.atZeroN + w.traction.perMarkN * mark), props.units)}
              </text>
            </g>
          ))}
        </svg>
        <input
          type="range"
          className="knob-range"
          aria-label="Knob"
          aria-valuetext={isCalibrated ? `mark ${twoFigures(at.mark)}` : `grip ${force(at.tractionN, props.units)}`}
          min={from}
          max={to}
          step={0.05}
          value={at.mark}
          onChange={(e) => props.onMark(Number(e.target.value))}
        />
      </div>
      <p className="small-print">{windowWords(props)}</p>
    </section>
  )
}

/** The window told: in marks where the knob is calibrated, else in newtons and how far it is from where the knob stands. */
export function windowWords(props: {
  setup: DragSetup
  said: Explained
  at: AtKnob
  isCalibrated: boolean
  units: Units
}): string {
  const { setup, said, at, isCalibrated, units } = props
  const { window: w } = said
  if (w.lowMark === null) return 'Nothing feeds: the force grows beyond anything a knob can press.'
  const high = LIMIT_WORD[w.limit]
  if (isCalibrated)
    return w.isOpen
      ? `From mark ${twoFigures(w.lowMark)} to ${twoFigures(w.highMark)} (${high}).`
      : `It would have to grip from mark ${twoFigures(w.lowMark)}, and may only to ${twoFigures(w.highMark)} (${high}).`
  const grip = (mark: number) => w.traction.atZeroN + w.traction.perMarkN * mark
  const [low, top] = [grip(w.lowMark), grip(w.highMark)]
  const marks = (n: number) => aboutMarks(setup, n - at.tractionN, w.traction.perMarkN)
  const span = `${force(low, units)} to ${force(top, units)} of grip`
  return w.isOpen
    ? `Not calibrated, so no marks: ${span} (${high}). The low end is ${marks(low)}, the high end ${marks(top)}.`
    : `Not calibrated, so no marks: it wants ${force(low, units)} of grip, ${marks(low)}, and bears ${force(top, units)} (${high}).`
}
