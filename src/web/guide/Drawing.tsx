import { PANEL, type DrawingKey, type Panel } from '@core/drawings/drawing.ts'
import { DRAWINGS } from '@core/drawings/all.ts'

const MARK = { right: '✓', wrong: '✕', how: '' } as const
const IS = { right: 'right', wrong: 'wrong', how: '' } as const

/** Right and wrong side by side. What is right is said in a word and a mark, never by colour alone. */
export function Drawing({ of }: { of: DrawingKey }) {
  const { title, panels } = DRAWINGS[of]
  return (
    <figure className={`guide-drawing has-${panels.length}`}>
      <figcaption>{title}</figcaption>
      <div className="guide-panels">
        {panels.map((panel) => (
          <OnePanel key={panel.word} panel={panel} title={title} />
        ))}
      </div>
    </figure>
  )
}

/** One panel by itself, as an answer is drawn; the answer's own words say it. */
export function DrawnAnswer({ of, panel }: { of: DrawingKey; panel: number }) {
  const drawn = DRAWINGS[of].panels[panel]
  return drawn ? <Panelled panel={drawn} title={null} /> : null
}

function OnePanel({ panel, title }: { panel: Panel; title: string }) {
  return (
    <div className={`guide-panel is-${panel.is}`}>
      <Panelled panel={panel} title={title} />
      <p>
        {MARK[panel.is] ? <strong aria-hidden="true">{MARK[panel.is]} </strong> : null}
        {panel.word}
      </p>
    </div>
  )
}

function Panelled({ panel, title }: { panel: Panel; title: string | null }) {
  const { width, height } = PANEL
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      {...(title ? { role: 'img', 'aria-label': `${title}: ${IS[panel.is]} ${panel.word}` } : { 'aria-hidden': true })}
    >
      {panel.shapes.map(({ ink, d }, i) => (
        <path key={i} d={d} className={`ink-${ink}${d.endsWith('Z') ? ' is-closed' : ''}`} />
      ))}
      {panel.labels?.map((l) => (
        <text key={`${l.x} ${l.y} ${l.text}`} x={l.x} y={l.y}>
          {l.text}
        </text>
      ))}
    </svg>
  )
}
