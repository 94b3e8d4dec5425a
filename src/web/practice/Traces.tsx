import { ROWS_PER_S, type BeadTrace } from '@core/practice/bead.ts'
import { LPM_PER_CFH, metrePerMinToIpm } from '@core/units/convert.ts'
import { CurveChart } from '@web/chart/CurveChart.tsx'
import { type Point } from '@web/chart/axes.ts'
import { twoFigures, type Units } from '@web/format/numbers.ts'

const EVERY = 4
/** As wide for all, so that they stand under each other second by second. */
const Y_PX = 64
/** Wire and rolls, volts, current, the feed motor and the gas over the four seconds, for who has such a meter. */
export function Traces({ trace, gas, units }: { trace: BeadTrace; gas: Float32Array | null; units: Units }) {
  const isUs = units === 'us'
  const speed = (mmS: number) => (isUs ? metrePerMinToIpm((mmS * 60) / 1000) : (mmS * 60) / 1000)
  const points = (column: Float32Array, of: (v: number) => number = (v) => v): Point[] =>
    [...column].flatMap((v, i) => (i % EVERY === 0 ? [{ x: i / ROWS_PER_S, y: of(v) }] : []))
  const rows = [
    {
      label: isUs ? 'wire, in/min' : 'wire, m/min',
      series: [
        { look: 'log' as const, label: 'rolls', points: points(trace.rollsMmS, speed) },
        { look: 'fit' as const, label: 'wire at the tip', points: points(trace.tipMmS, speed) },
      ],
    },
    ...(
      [
        ['arc, V', trace.volts],
        ['current, A', trace.amps],
        ['feed motor, A', trace.motorA],
      ] as const
    ).map(([label, column]) => ({ label, series: [{ look: 'fit' as const, label, points: points(column) }] })),
  ]
  if (gas) {
    const label = isUs ? 'gas, ft³/h' : 'gas, L/min'
    const flow = points(gas, (lpm) => (isUs ? lpm / LPM_PER_CFH : lpm))
    rows.push({ label, series: [{ look: 'fit' as const, label, points: flow }] })
  }
  return (
    <div className="booth-traces">
      {rows.map(({ label, series }) => {
        const top = Math.max(1, ...series.flatMap((s) => s.points.map((p) => p.y)))
        return (
          <CurveChart
            key={label}
            className="trace-chart"
            says={`${label}: up to ${twoFigures(top)}`}
            series={series}
            x={{ min: 0, max: 4, ticks: [0, 1, 2, 3, 4].map((s) => ({ value: s, says: `${s} s` })) }}
            y={{ min: 0, title: label, widthPx: Y_PX, ticks: [0, top].map((v) => ({ value: v, says: twoFigures(v) })) }}
            hasLegend
          />
        )
      })}
    </div>
  )
}
