import { COLUMNS, type Column } from '@core/path/columns.ts'
import { handItem, type HandItemKey } from '@core/classes/items.ts'

const STEP = 58
const TALL = 74
const LINE = 52
interface Counted {
  item: HandItemKey
  wrong: number
  looked: number
}

/** Where on the path it was found, over all booths: a heap of marks at each place. Nobody's booth is in it. */
export function FoundPath({ found, only }: { found: readonly Counted[]; only?: HandItemKey }) {
  const places = [...COLUMNS, 'off' as const]
  const of = (place: Column | 'off') =>
    found.filter((f) => handItem(f.item).at === place && (only === undefined || f.item === only))
  const width = places.length * STEP
  const says = found
    .filter((f) => f.wrong > 0 && (only === undefined || f.item === only))
    .map((f) => `${handItem(f.item).name.toLowerCase()}: ${f.wrong} of ${f.looked}`)
    .join(', ')
  return (
    <svg className="found-path" viewBox={`0 0 ${width} ${TALL}`} role="img" aria-label={`Along the path: ${says}`}>
      <path className="wire-stroke" strokeWidth="5" d={`M4 ${LINE}H${width - STEP}`} />
      {places.map((place, i) => {
        const wrong = of(place).reduce((n, f) => n + f.wrong, 0)
        const x = i * STEP + STEP / 2
        return (
          <g key={place}>
            {Array.from({ length: Math.min(wrong, MOST) }, (_, n) => (
              <path key={n} className="found-mark" d={`M${x - 9} ${LINE - 7 - n * 5}h18`} />
            ))}
            {wrong > 0 ? (
              <text x={x + 13} y={LINE - 8} className="found-n">
                {wrong}
              </text>
            ) : null}
            <text x={x} y={TALL - 4} textAnchor="middle" className={wrong > 0 ? 'found-name is-found' : 'found-name'}>
              {place === 'off' ? 'beside' : place}
            </text>
          </g>
        )
      })}
    </svg>
  )
}
const MOST = 9
