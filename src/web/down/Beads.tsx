import { PATH_PLACES, type PathPlace } from '@core/path/columns.ts'
import { inN, placeName } from '@web/format/words.ts'

const WIDE = { step: 96, y: 34, most: 26, height: 96 }
const NARROW = { step: 31, y: 20, most: 13, height: 66 }
/** Likelihood hangs under the line as beads, their area is the chance; what is ruled out is a small ring. A tap says "it is this". */
export function Beads(props: {
  beads: ReadonlyMap<PathPlace, number>
  isNarrow: boolean
  onPick: (column: PathPlace) => void
}) {
  const { beads, isNarrow, onPick } = props
  const { step, y, most, height } = isNarrow ? NARROW : WIDE
  const total = [...beads.values()].reduce((a, b) => a + b, 0) || 1
  const likeliest = [...beads].sort((a, b) => b[1] - a[1])[0]
  return (
    <div className="beads">
      <svg
        viewBox={`0 0 ${step * PATH_PLACES.length} ${height}`}
        width="100%"
        role="group"
        aria-label="Where it may be"
      >
        <path d={`M0 ${y / 2}H${step * PATH_PLACES.length}`} className="bead-wire" />
        {PATH_PLACES.map((column, i) => {
          const chance = beads.get(column) ?? 0
          const r = Math.max(2, most * Math.sqrt(chance / total))
          const x = step * (i + 0.5)
          return (
            <g
              key={column}
              role="button"
              tabIndex={0}
              aria-label={`${placeName(column)}: ${chance > 0.005 ? inN(Math.min(1, chance)) : 'hardly'}`}
              onClick={() => onPick(column)}
              onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ' ? onPick(column) : undefined)}
            >
              <rect x={step * i} y={0} width={step} height={height} className="bead-reach" />
              <circle cx={x} cy={y / 2 + most + 4} r={r} className={chance / total > 0.03 ? 'bead' : 'bead is-out'} />
              {isNarrow ? null : (
                <text x={x} y={height - 4}>
                  {placeName(column)}
                </text>
              )}
            </g>
          )
        })}
      </svg>
      {likeliest ? (
        <p>
          {placeName(likeliest[0])} {inN(Math.min(1, likeliest[1]))}
        </p>
      ) : null}
    </div>
  )
}
