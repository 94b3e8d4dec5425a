import { type LifeAnswer } from '@contract/life.ts'
import { amount, type Units } from '@web/format/numbers.ts'

const WIDE = 900
const TALL = 300
const FOOT = 34
const TICKS = 6
type End = LifeAnswer['strokes'][number]['end']

/** How far to the right is drawn: what lasts longer runs off the edge. */
export function reachOf(at: LifeAnswer): number {
  const sorted = [...at.strokes].sort((a, b) => a.used - b.used)
  const most = sorted[Math.floor(sorted.length * 0.97)]?.used ?? 1
  return Math.max(most, (at.told?.median.value ?? 0) * 2.2, 1e-6)
}

/**
 * Each life a stroke, laid one on the other with the longest at the bottom: their right edge is the curve of what is left. The blade cuts at the age of a rule.
 */
export function UsedParts({
  at,
  blade,
  marked,
  units,
}: {
  at: LifeAnswer
  blade: number | null
  marked: number | null
  units: Units
}) {
  const reach = reachOf(at)
  const x = (use: number) => (Math.min(use, reach) / reach) * WIDE
  const step = TALL / Math.max(12, at.strokes.length)
  const said = `${at.strokesOf} lives, the longest at the bottom; half are gone by ${at.told ? amount(at.told.median.value, at.unit, units) : 'nobody knows when'}.`
  return (
    <svg
      className="used-parts"
      viewBox={`0 -14 ${WIDE} ${TALL + FOOT + 14}`}
      role="img"
      aria-label={said}
      preserveAspectRatio="none"
    >
      {ENDS.map((end) => (
        <path
          key={end}
          className={`life-${end}`}
          strokeWidth={Math.max(0.7, Math.min(6, step * 0.7))}
          d={at.strokes.flatMap((s, i) => (s.end === end ? [`M0 ${y(i, step)}H${x(s.used).toFixed(1)}`] : [])).join('')}
        />
      ))}
      <path className="life-fit" d={fitPath(at, x)} />
      {blade === null ? null : (
        <rect className="life-beyond" x={x(blade)} y={0} width={WIDE - x(blade)} height={TALL} />
      )}
      {blade === null ? null : <path className="life-blade" d={`M${x(blade)} -12V${TALL + 8}`} />}
      {marked === null ? null : (
        <path className="life-marked" d={`M${x(marked)} ${TALL - 26}V${TALL + 8}m-7 -10l7 10l7 -10`} />
      )}
      <path className="life-axis" d={`M0 ${TALL}H${WIDE}`} />
    </svg>
  )
}
const ENDS: readonly End[] = ['cut', 'in', 'notSaid', 'chance', 'worn']
/** The longest lies at the bottom. */
const y = (i: number, step: number) => (TALL - (i + 0.5) * step).toFixed(1)
const fitPath = (at: LifeAnswer, x: (use: number) => number) => {
  const reach = reachOf(at)
  return at.curve
    .filter((c) => c.at <= reach)
    .map((c, i) => `${i === 0 ? 'M' : 'L'}${x(c.at).toFixed(1)} ${(TALL * (1 - c.left)).toFixed(1)}`)
    .join('')
}

/** Under the strokes: use at round steps, in the kind's own unit. */
export function UseScale({ at, units }: { at: LifeAnswer; units: Units }) {
  const reach = reachOf(at)
  const step = roundStep(reach / TICKS)
  return (
    <div className="life-scale" aria-hidden="true">
      {Array.from({ length: Math.floor(reach / step) + 1 }, (_, i) => (
        <span key={i} style={{ left: `${((i * step) / reach) * 100}%` }}>
          {i === 0 ? '0' : amount(i * step, at.unit, units)}
        </span>
      ))}
    </div>
  )
}
/** 1, 2 or 5 times a power of ten. */
function roundStep(about: number): number {
  const ten = 10 ** Math.floor(Math.log10(about))
  return ten * (about / ten < 1.5 ? 1 : about / ten < 3.5 ? 2 : about / ten < 7.5 ? 5 : 10)
}

const LEGEND: readonly (readonly [End, string])[] = [
  ['worn', 'worn'],
  ['chance', 'burned back, knocked'],
  ['notSaid', 'not said'],
  ['cut', 'taken out good'],
  ['in', 'still in'],
]
export function Legend({ at }: { at: LifeAnswer }) {
  const there = new Set(at.strokes.map((s) => s.end))
  return (
    <p className="life-legend dim">
      {LEGEND.filter(([end]) => there.has(end)).map(([end, word]) => (
        <span key={end}>
          <svg width="26" height="10" aria-hidden="true">
            <path className={`life-${end}`} strokeWidth="4" d="M0 5H26" />
          </svg>{' '}
          {word}
        </span>
      ))}
      <span>
        <svg width="26" height="10" aria-hidden="true">
          <path className="life-fit" d="M0 5H26" />
        </svg>{' '}
        fitted, corrected for what is not logged
      </span>
    </p>
  )
}
