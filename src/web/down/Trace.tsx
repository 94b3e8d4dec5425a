import { useQuery } from '@tanstack/react-query'
import { median } from '@core/trend/theilsen.ts'
import { metrePerMinToIpm } from '@core/units/convert.ts'
import { traceAnswer, type TraceAnswer } from '@contract/cell.ts'
import { getJson } from '@web/api/client.ts'
import { CurveChart } from '@web/chart/CurveChart.tsx'
import { type Point, type Series } from '@web/chart/axes.ts'
import { flow, twoFigures, wireSpeed, type Units } from '@web/format/numbers.ts'

const useTrace = (stationId: string, isDown: boolean) =>
  useQuery({
    queryKey: ['trace', stationId],
    queryFn: () => getJson(`/cells/trace?stationId=${stationId}`, traceAnswer),
    enabled: isDown,
  })

type Trace = TraceAnswer['points']
const column = (points: Trace, of: (p: Trace[number]) => number | null): Point[] =>
  points.flatMap((p) => {
    const y = of(p)
    return y === null ? [] : [{ x: p.s, y }]
  })

/** Rolls that turn slower than this stand, m/min. */
const TURNS = 0.5
const HALF = 0.5
const CLIMBED = 1.1
/** What the gas fell to is told from here on, as a share of what it was. */
const GAS_FELL = 0.7

/** What the minute shows, in sentences: rolls against wire first, then the arc, then the gas. */
export function traceSays(points: Trace, units: Units): string {
  const last = points.findLast((p) => (p.rollMPerMin ?? p.wireMPerMin) > TURNS) ?? points.at(-1)
  if (!last) return ''
  const [roll, speed] = [last.rollMPerMin, (mPerMin: number) => wireSpeed(Number(twoFigures(mPerMin)), units)]
  const isSlipping = roll !== null && roll > TURNS && last.wireMPerMin < roll * HALF
  const came = last.wireMPerMin < 0.1 ? 'no wire came' : `only ${speed(last.wireMPerMin)} of wire came`
  return [
    isSlipping
      ? `In the end the rolls turned at ${speed(roll)} and ${came}.`
      : `Wire came at ${speed(last.wireMPerMin)} to the end.`,
    ...climbSays(column(points, (p) => p.volts)),
    ...gasSays(
      column(points, (p) => p.gasLpm),
      units,
    ),
  ].join(' ')
}
const usual = (of: readonly Point[]) => median(of.map((p) => p.y))
function climbSays(volts: readonly Point[]): string[] {
  if (volts.length < 4) return []
  const [was, most] = [usual(volts), Math.max(...volts.slice(-4).map((p) => p.y))]
  return most > was * CLIMBED
    ? [`The arc climbed from ${Math.round(was)} to ${Math.round(most)} V, as it does where wire stops coming.`]
    : []
}
function gasSays(gas: readonly Point[], units: Units): string[] {
  const last = gas.at(-1)
  if (gas.length < 4 || !last) return []
  const was = usual(gas)
  return last.y < was * GAS_FELL ? [`Gas fell from ${flow(was, units)} to ${flow(last.y, units)}.`] : []
}

interface Drawn {
  label: string
  title: string
  says: string
  series: Series[]
  top: number
}
const topOf = (points: readonly Point[]) => Math.max(...points.map((p) => p.y))
/** What there is to draw of it: wire and rolls always, motor and arc where they were sent. */
function pictures(points: Trace, units: Units): Drawn[] {
  const isUs = units === 'us'
  const inUnits = (mPerMin: number) => (isUs ? metrePerMinToIpm(mPerMin) : mPerMin)
  const rolls = column(points, (p) => (p.rollMPerMin === null ? null : inUnits(p.rollMPerMin)))
  const wire = column(points, (p) => inUnits(p.wireMPerMin))
  const motor = column(points, (p) => p.motorAmps)
  const volts = column(points, (p) => p.volts)
  const listed = (of: readonly Point[]) => of.map((p) => twoFigures(p.y)).join(', ')
  const one = (label: string, title: string, of: Point[]): Drawn[] =>
    of.length > 1
      ? [
          {
            label,
            title,
            says: `${label}: ${listed(of)}`,
            series: [{ look: 'fit', label, points: of }],
            top: topOf(of),
          },
        ]
      : []
  return [
    {
      ...{ label: 'wire', title: isUs ? 'in/min' : 'm/min', says: `Wire speed in the last minute: ${listed(wire)}` },
      series: [
        ...(rolls.length > 1 ? [{ look: 'log' as const, label: 'rolls', points: rolls }] : []),
        { look: 'fit', label: 'wire', points: wire },
      ],
      top: topOf([...rolls, ...wire]),
    },
    ...one('feed motor, A', 'A', motor),
    ...one('arc, V', 'V', volts),
  ]
}

/** The minute before it stopped, as the feeder itself sent it: wire and rolls, what the motor drew, and the arc. */
export function TracePicture({ stationId, isDown, units }: { stationId: string; isDown: boolean; units: Units }) {
  const trace = useTrace(stationId, isDown)
  const points = trace.data?.points ?? []
  if (!isDown || points.length < 2) return null
  const x = {
    min: points[0]?.s ?? -60,
    max: points.at(-1)?.s ?? 0,
    ticks: [-60, -40, -20, 0].map((s) => ({ value: s, says: s === 0 ? 'it stopped' : `${s} s` })),
  }
  return (
    <figure className="trace" aria-label="The minute before it stopped">
      <figcaption>{traceSays(points, units)}</figcaption>
      {pictures(points, units).map(({ label, title, says, series, top }) => (
        <CurveChart
          key={label}
          className="trace-chart"
          {...{ says, series, x }}
          y={{ min: 0, title, widthPx: 64, ticks: [0, top].map((value) => ({ value, says: twoFigures(value) })) }}
          hasLegend
        />
      ))}
    </figure>
  )
}
