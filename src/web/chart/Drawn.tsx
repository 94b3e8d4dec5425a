import {
  Chart,
  Filler,
  Legend,
  LinearScale,
  LineElement,
  PointElement,
  type ChartDataset,
  type Plugin,
  type ScaleOptionsByType,
} from 'chart.js'
import { useSyncExternalStore } from 'react'
import { Line } from 'react-chartjs-2'
import { type Axis, type Curves, type Series } from './axes.ts'

Chart.register(LinearScale, LineElement, PointElement, Filler, Legend)
Chart.defaults.font.family = getComputedStyle(document.body).fontFamily
Chart.defaults.font.size = 14

type Set = ChartDataset<'line', { x: number; y: number }[]> & { end?: string }
const HIDDEN = ' '

/** Colours of the theme that is on; drawn anew when it is changed. */
function useColours() {
  const theme = useSyncExternalStore(
    (changed) => {
      const watch = new MutationObserver(changed)
      watch.observe(document.documentElement, { attributes: true })
      const media = matchMedia('(prefers-color-scheme: light)')
      media.addEventListener('change', changed)
      return () => {
        watch.disconnect()
        media.removeEventListener('change', changed)
      }
    },
    () => ['--wire', '--dim', '--chalk', '--rule'].map(colour).join(' '),
  )
  const [wire = '', dim = '', chalk = '', rule = ''] = theme.split(' ')
  return { wire, dim, chalk, rule }
}
const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
type Colours = ReturnType<typeof useColours>

/** What is written at the end of a limit. */
const endWords: Plugin<'line'> = {
  id: 'endWords',
  afterDatasetsDraw(chart) {
    const { ctx, data } = chart
    data.datasets.forEach((set, i) => {
      const { end } = set as Set
      const last = chart.getDatasetMeta(i).data.at(-1)
      if (!end || !last) return
      ctx.save()
      ctx.fillStyle = colour('--dim')
      ctx.textBaseline = 'middle'
      ctx.fillText(end, last.x + 6, last.y)
      ctx.restore()
    })
  },
}

function setsOf(series: Series, c: Colours): Set[] {
  const plain = { label: series.label, pointRadius: 0, parsing: false as const, fill: false as const }
  if (series.look === 'band') {
    const edge = (of: 'low' | 'high') => series.points.map((p) => ({ x: p.x, y: p[of] }))
    return [
      { ...plain, label: HIDDEN, data: edge('high'), borderColor: 'transparent' },
      { ...plain, data: edge('low'), borderColor: 'transparent', backgroundColor: `${c.wire}44`, fill: '-1' },
    ]
  }
  const data = [...series.points]
  switch (series.look) {
    case 'fit':
      return [{ ...plain, data, borderColor: c.wire, borderWidth: 3 }]
    case 'log':
      return [{ ...plain, data, borderColor: c.chalk, borderDash: [5, 4], borderWidth: 1.5, stepped: 'before' }]
    case 'dots':
      return [
        { ...plain, data, pointRadius: 4, clip: false, showLine: false, backgroundColor: c.wire, borderColor: c.wire },
      ]
    case 'ahead':
      return [{ ...plain, data, borderColor: c.wire, borderDash: [4, 4], borderWidth: 2 }]
    case 'limit':
      return [{ ...plain, data, end: series.label, borderColor: c.chalk, borderDash: [6, 4], borderWidth: 1.5 }]
  }
}

type ScaleOptions = ScaleOptionsByType<'linear'>
function scale(axis: Axis, c: Colours) {
  const { title, min, max, ticks, widthPx } = axis
  const says = (value: string | number) => ticks?.find((t) => t.value === Number(value))?.says ?? ''
  return {
    type: 'linear' as const,
    ...(min === undefined ? {} : { min }),
    ...(max === undefined ? {} : { max }),
    title: { display: Boolean(title), text: title ?? '', color: c.dim },
    ticks: { color: c.dim, ...(ticks ? { callback: says, autoSkip: false } : {}) },
    grid: { color: c.rule, display: !ticks },
    border: { display: !ticks },
    ...(widthPx ? { afterFit: (of: { width: number }) => (of.width = widthPx) } : {}),
    ...(ticks
      ? { afterBuildTicks: (of: { ticks: { value: number }[] }) => (of.ticks = ticks.map(({ value }) => ({ value }))) }
      : {}),
  } satisfies Partial<Record<keyof ScaleOptions | 'type' | 'afterBuildTicks' | 'afterFit', unknown>>
}

/** Curves on their axes; one for the eye, `says` for who hears it. */
export function Drawn({ says, series, x, y, hasLegend }: Curves) {
  const c = useColours()
  const hasEnd = series.some((s) => s.look === 'limit')
  return (
    <Line
      aria-label={says}
      role="img"
      data={{ datasets: series.flatMap((s) => setsOf(s, c)) }}
      plugins={[endWords]}
      options={{
        animation: false,
        maintainAspectRatio: false,
        layout: { padding: { right: hasEnd ? 84 : 0 } },
        scales: { x: scale(x, c), y: scale(y, c) },
        plugins: {
          legend: {
            display: Boolean(hasLegend),
            labels: { color: c.chalk, filter: (item) => item.text !== HIDDEN, boxWidth: 26, boxHeight: 2 },
          },
        },
      }}
    />
  )
}
