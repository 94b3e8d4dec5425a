import { type LifeAnswer } from '@contract/life.ts'
import { CurveChart } from '@web/chart/CurveChart.tsx'
import { type Series } from '@web/chart/axes.ts'
import { unitWord, type Units } from '@web/format/numbers.ts'

/** In parts of a hundred. */
const PERCENT = 100
export const curveSeries = ({ curve, steps }: Pick<LifeAnswer, 'curve' | 'steps'>): Series[] => [
  {
    look: 'band',
    label: '9 in 10 lie here',
    points: curve.map((p) => ({ x: p.at, low: PERCENT * p.low, high: PERCENT * p.high })),
  },
  { look: 'fit', label: 'fitted, corrected', points: curve.map((p) => ({ x: p.at, y: PERCENT * p.left })) },
  { look: 'log', label: 'as logged', points: steps.map((p) => ({ x: p.at, y: PERCENT * p.left })) },
]

/** The fitted curve with its band, and the log as it stands beside it, so that the fit can be judged by eye. */
export function Curve({ at, units }: { at: LifeAnswer; units: Units }) {
  return (
    <>
      <CurveChart
        className="life-curve"
        says="Share still good by use"
        series={curveSeries(at)}
        x={{ title: unitWord(at.unit, units), min: 0 }}
        y={{ title: 'of 100 still good', min: 0, max: PERCENT }}
        hasLegend
      />
      <p className="dim">
        The dashed line is the log taken at its word: where changes go unlogged it runs too far to the right. The copper
        line is what the parts do.
      </p>
    </>
  )
}
