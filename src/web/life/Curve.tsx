import { CategoryScale, Chart, Filler, Legend, LinearScale, LineElement, PointElement, Tooltip } from 'chart.js'
import { Line } from 'react-chartjs-2'
import { type LifeAnswer } from '@contract/life.ts'
import { unitWord, type Units } from '@web/format/numbers.ts'

Chart.register(CategoryScale, LinearScale, LineElement, PointElement, Filler, Tooltip, Legend)

const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
const points = (list: readonly { at: number }[], y: (i: number) => number) => list.map((p, i) => ({ x: p.at, y: y(i) }))

/** The fitted curve with its band, and the log as it stands beside it, so that the fit can be judged by eye. */
export function Curve({ at, units }: { at: LifeAnswer; units: Units }) {
  const { curve, steps } = at
  const [wire, dim, chalk, rule] = [colour('--wire'), colour('--dim'), colour('--chalk'), colour('--rule')]
  const line = { pointRadius: 0, parsing: false as const }
  const data = {
    datasets: [
      {
        ...line,
        label: 'at most',
        data: points(curve, (i) => 100 * (curve[i]?.high ?? 0)),
        borderColor: 'transparent',
        fill: false,
      },
      {
        ...line,
        label: '9 in 10 lie here',
        data: points(curve, (i) => 100 * (curve[i]?.low ?? 0)),
        borderColor: 'transparent',
        backgroundColor: `${wire}44`,
        fill: '-1',
      },
      {
        ...line,
        label: 'fitted, corrected',
        data: points(curve, (i) => 100 * (curve[i]?.left ?? 0)),
        borderColor: wire,
        borderWidth: 3,
      },
      {
        ...line,
        label: 'as logged',
        data: points(steps, (i) => 100 * (steps[i]?.left ?? 0)),
        borderColor: chalk,
        borderDash: [5, 4],
        borderWidth: 1.5,
        stepped: 'before' as const,
      },
    ],
  }
  const axis = (text: string) => ({
    type: 'linear' as const,
    min: 0,
    title: { display: true, text, color: dim },
    ticks: { color: dim },
    grid: { color: rule },
  })
  return (
    <div className="life-curve">
      <Line
        data={data}
        aria-label="Share still good by use"
        options={{
          animation: false,
          maintainAspectRatio: false,
          scales: { x: axis(unitWord(at.unit, units)), y: { ...axis('of 100 still good'), max: 100 } },
          plugins: {
            legend: { labels: { color: chalk, filter: (item) => item.text !== 'at most', boxWidth: 26, boxHeight: 2 } },
            tooltip: { enabled: false },
          },
        }}
      />
      <p className="dim">
        The dashed line is the log taken at its word: where changes go unlogged it runs too far to the right. The copper
        line is what the parts do.
      </p>
    </div>
  )
}
