import { placeName } from '@web/format/words.ts'
import { COLUMNS } from '@core/path/columns.ts'
import { type PaybackAnswer } from '@contract/payback.ts'
import { aboutMoney, minutes } from '@web/format/numbers.ts'
import { heapMinor } from './paybackwords.ts'

const PLACES = [...COLUMNS, 'off'] as const
const WIDE = 1200
/** Phone letters have to be read at a third of the width. */
const DESK = { tall: 190, top: 26, foot: 26 }
const PHONE = { tall: 480, top: 90, foot: 56 }

/** A heap as it lies on a bench: straight sides, its top worn round. Height tells, the foot is always the same. */
function mound([x, foot]: readonly [number, number], width: number, height: number): string {
  const round = Math.min(height * 0.3, 16)
  // The sides run to a point half the rounding higher, so that the round top is as high as it says.
  const point = foot - height - round / 2
  const [peak, slope] = [x + width / 2, width / 2 / (height + round / 2)]
  const [from, to] = [peak - round * slope, peak + round * slope]
  return `M${x} ${foot}L${from} ${point + round}Q${peak} ${point} ${to} ${point + round}L${x + width} ${foot}Z`
}

/** What stopped where: these days filled, as many days before hollow behind them. */
export function Heaps({ at, isMoney, isNarrow }: { at: PaybackAnswer; isMoney: boolean; isNarrow: boolean }) {
  const valueOf = (heap: PaybackAnswer['total']['now']) => (isMoney ? heapMinor(heap) : heap.minutes)
  const words = (value: number) => (isMoney ? aboutMoney(value, at.currency) : minutes(value))
  const most = Math.max(1e-9, ...at.heaps.flatMap((h) => [valueOf(h.now), valueOf(h.before)]))
  const places = isNarrow ? PLACES.filter((p) => at.heaps.some((h) => h.column === p)) : PLACES
  const size = isNarrow ? PHONE : DESK
  const step = WIDE / Math.max(1, places.length)
  const high = (value: number) => (value / most) * (size.tall - size.top)
  return (
    <figure className={isNarrow ? 'payback-heaps is-narrow' : 'payback-heaps'}>
      <svg viewBox={`0 0 ${WIDE} ${size.tall + size.foot + 10}`} width="100%" role="img" aria-label="Heaps on the path">
        {places.map((place, i) => {
          const heap = at.heaps.find((h) => h.column === place)
          const [now, before] = [heap ? valueOf(heap.now) : 0, heap ? valueOf(heap.before) : 0]
          const x = i * step + 4
          const middle = i * step + step / 2
          return (
            <g key={place}>
              {now > 0 ? <path d={mound([x, size.tall], step - 8, high(now))} className="heap-now" /> : null}
              {before > 0 ? <path d={mound([x, size.tall], step - 8, high(before))} className="heap-before" /> : null}
              {now > 0 ? (
                <text x={middle} y={size.tall - Math.max(high(now), high(before)) - 8} className="heap-value">
                  {words(now)}
                </text>
              ) : null}
              <text x={middle} y={size.tall + size.foot}>
                {placeName(place)}
              </text>
            </g>
          )
        })}
        <path d={`M0 ${size.tall}H${WIDE}`} className="bead-wire" />
      </svg>
      <figcaption className="dim">
        Heaped where the stop began: filled these {at.days} days, the line the {at.days} days before.
      </figcaption>
    </figure>
  )
}
