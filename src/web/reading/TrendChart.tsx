import { type ReadingKey } from '@core/reading/keys.ts'
import { READING } from '@core/reading/specs.ts'
import { type TrendLine } from '@contract/reading.ts'
import { amount } from '@web/format/numbers.ts'
import { readingValue, type Told } from './readingwords.ts'

const SIZE = { width: 560, height: 120, left: 8, right: 110, top: 14, bottom: 26 } as const

/** A series of readings as dots against the wire fed, the line through them, the limit, and where the two meet. */
export function TrendChart({ what, trend, at }: { what: ReadingKey; trend: TrendLine; at: Told }) {
  const { points, limit, slope, intercept } = trend
  const last = points.at(-1)?.usage ?? 0
  const ahead = trend.crossing ? Math.min(trend.crossing.usage, last * 2) : last
  const toX = Math.max(last, ahead) * 1.04 || 1
  const values = [...points.map((p) => p.value), ...(limit === null ? [] : [limit])]
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const pad = (high - low) * 0.12 || Math.abs(high) * 0.1 || 1
  const x = (usage: number) => SIZE.left + (usage / toX) * (SIZE.width - SIZE.left - SIZE.right)
  const y = (value: number) =>
    SIZE.top + ((high + pad - value) / (high - low + 2 * pad)) * (SIZE.height - SIZE.top - SIZE.bottom)
  const isLine = trend.is !== 'few' && slope !== null && intercept !== null
  const line = (usage: number) => (intercept ?? 0) + (slope ?? 0) * usage
  return (
    <svg
      className="trend-chart"
      viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
      role="img"
      aria-label={`${READING[what].name}: ${points.map((p) => readingValue(what, p.value, at.units)).join(', ')}`}
    >
      {limit === null ? null : (
        <>
          <path d={`M${SIZE.left} ${y(limit)}H${SIZE.width - SIZE.right}`} className="trend-limit" />
          <text x={SIZE.width - SIZE.right + 8} y={y(limit) + 5} className="drag-label">
            limit {readingValue(what, limit, at.units)}
          </text>
        </>
      )}
      {isLine ? <path d={`M${x(0)} ${y(line(0))}L${x(last)} ${y(line(last))}`} className="trend-line" /> : null}
      {isLine && ahead > last ? (
        <path d={`M${x(last)} ${y(line(last))}L${x(ahead)} ${y(line(ahead))}`} className="trend-ahead" />
      ) : null}
      {points.map((p) => (
        <circle key={p.atMs} cx={x(p.usage)} cy={y(p.value)} r={4} className="trend-dot" />
      ))}
      <text x={SIZE.left} y={SIZE.height - 6} className="drag-label">
        0
      </text>
      <text x={x(last)} y={SIZE.height - 6} className="drag-label" textAnchor="end">
        {trend.unit === 'kg' ? `${amount(last, 'kg', at.units)} of wire` : `${Math.round(last)} days`}
      </text>
    </svg>
  )
}
