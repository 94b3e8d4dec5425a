import { type ReadingKey } from '@core/reading/keys.ts'
import { READING } from '@core/reading/specs.ts'
import { type TrendLine } from '@contract/reading.ts'
import { CurveChart } from '@web/chart/CurveChart.tsx'
import { type Series } from '@web/chart/axes.ts'
import { amount, type Units } from '@web/format/numbers.ts'
import { readingValue, type Told } from './readingwords.ts'

/** No further ahead than as much again as was seen. */
const AHEAD = 2
/** Readings as dots, the line through them, where it goes, and the limit. */
export function trendSeries(trend: TrendLine, limitSays: string): { series: Series[]; last: number; toX: number } {
  const { points, limit, slope, intercept } = trend
  const last = points.at(-1)?.usage ?? 0
  const ahead = trend.crossing ? Math.min(trend.crossing.usage, last * AHEAD) : last
  const toX = Math.max(last, ahead) || 1
  const isLine = trend.is !== 'few' && slope !== null && intercept !== null
  const at = (x: number) => ({ x, y: (intercept ?? 0) + (slope ?? 0) * x })
  const flat = (y: number) => [0, toX].map((x) => ({ x, y }))
  return {
    last,
    toX,
    series: [
      ...(limit === null ? [] : [{ look: 'limit' as const, label: limitSays, points: flat(limit) }]),
      ...(isLine ? [{ look: 'fit' as const, label: 'line', points: [at(0), at(last)] }] : []),
      ...(isLine && ahead > last ? [{ look: 'ahead' as const, label: 'ahead', points: [at(last), at(ahead)] }] : []),
      { look: 'dots', label: 'read', points: points.map((p) => ({ x: p.usage, y: p.value })) },
    ],
  }
}
const usageWords = (usage: number, unit: TrendLine['unit'], units: Units) =>
  unit === 'kg' ? `${amount(usage, 'kg', units)} of wire` : `${Math.round(usage)} days`

/** A series of readings against the wire fed, the line through them, the limit, and where the two meet. */
export function TrendChart({ what, trend, at }: { what: ReadingKey; trend: TrendLine; at: Told }) {
  const limitSays = trend.limit === null ? '' : `limit ${readingValue(what, trend.limit, at.units)}`
  const { series, last, toX } = trendSeries(trend, limitSays)
  const ticks = [
    { value: 0, says: '0' },
    { value: last, says: usageWords(last, trend.unit, at.units) },
  ]
  return (
    <CurveChart
      className="trend-chart"
      says={`${READING[what].name}: ${trend.points.map((p) => readingValue(what, p.value, at.units)).join(', ')}`}
      series={series}
      x={{ min: 0, max: toX, ticks }}
      y={{ ticks: [] }}
    />
  )
}
