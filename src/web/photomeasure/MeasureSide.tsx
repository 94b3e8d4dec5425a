import { Tick } from '@web/kit/Tick.tsx'
import { Button } from 'react-bootstrap'
import { useReducer, useRef, useState, type PointerEvent } from 'react'
import { type Line } from '@core/photomeasure/span.ts'
import { type Measure, typed } from '@web/format/measures.ts'
import { field, TextField } from '@web/kit/Field.tsx'
import { type Answer } from './asked.ts'
import { answerSentence } from './photowords.ts'
import { linesOf, nextTap, NO_LINES, sideStep, type SideEvent, type SideLines } from './sidelines.ts'
import { pictureWidth, pointOn, TakePhoto, useObjectUrl } from './TakePhoto.tsx'
import { useMeasure } from './useMeasure.ts'

interface SideProps {
  /** What of known size lies in the picture, and whether lengths are told in its own width. */
  known: string
  isKnownUnit: boolean
  /** How lengths are typed and told here. */
  measure: Measure
  onAnswer: (answer: Answer | null) => void
  onPhoto: (file: File) => void
}
const keptAs = (known: string) => `known ${known}`

/** A length on a picture from the side: a line across a part of known size, a line across what is measured; both go to the edges near them. */
export function MeasureSide(props: SideProps) {
  const { known, isKnownUnit, measure, onAnswer } = props
  const [file, setFile] = useState<File | null>(null)
  const [size, setSize] = useState(() => localStorage.getItem(keptAs(known)) ?? '')
  const [lines, tell] = useReducer(sideStep, NO_LINES)
  const m = useMeasure(onAnswer)
  const url = useObjectUrl(file)
  const knownMm = isKnownUnit ? 1 : typed(size, measure)
  const hasScale = knownMm !== null && knownMm > 0
  const ask = (next: SideLines, mm: number | null) => {
    const both = linesOf(next)
    if (!both || mm === null || !(mm > 0)) return
    localStorage.setItem(keptAs(known), size)
    m.span({ ...both, knownMm: mm, byHand: { known: next.isByHand, span: next.isByHand } })
  }
  const act = (event: SideEvent) => {
    tell(event)
    if (event.type === 'again') return onAnswer(null)
    ask(sideStep(lines, event), knownMm)
  }
  const choose = (chosen: File) => {
    setFile(chosen)
    tell({ type: 'again' })
    m.open(chosen)
    props.onPhoto(chosen)
  }
  const picture = typeof m.size === 'object' ? m.size : null
  const found = m.answer?.is === 'span' && m.answer.of.ok && !lines.isByHand ? m.answer.of : null
  const say = (length: number) => `${(Math.round(measure.fromSi(length) * 100) / 100).toString()} ${measure.word}`
  const says = () => {
    if (!picture) return m.isBusy ? 'Reading the picture…' : ''
    if (!hasScale) return `Say what it measures across ${known}: it gives the scale.`
    const next = nextTap(lines, known)
    if (next) return next
    return m.isBusy || !m.answer ? 'Measuring…' : answerSentence(m.answer, say)
  }
  return (
    <div className="measure">
      {isKnownUnit ? null : (
        <TextField
          id="measure-known"
          label={`Across ${known}, ${measure.word}`}
          inputMode="decimal"
          {...field(size, (text) => {
            setSize(text)
            ask(lines, typed(text, measure))
          })}
        />
      )}
      <TakePhoto word={file ? 'another photo' : 'a photo'} onPhoto={choose} />
      {m.size === 'unreadable' ? <p className="step-look">That is no picture this device can read.</p> : null}
      {picture && url ? <SidePicture url={url} size={picture} lines={lines} found={found} onAct={act} /> : null}
      <p className="measure-says" role="status">
        {says()}
      </p>
      {picture && lines.points.length > 0 ? (
        <div className="measure-hand">
          <Tick isOn={lines.isByHand} onTick={(is) => act({ type: 'byHand', is })}>
            lines stay where I put them
          </Tick>
          <Button variant="" onClick={() => act({ type: 'again' })}>
            lines anew
          </Button>
        </div>
      ) : null}
    </div>
  )
}

function SidePicture(props: {
  url: string
  size: { width: number; height: number }
  lines: SideLines
  /** The lines as they went to the edges. */
  found: { known: Line; span: Line } | null
  onAct: (event: SideEvent) => void
}) {
  const { size, lines, found, onAct } = props
  const svg = useRef<SVGSVGElement>(null)
  const held = useRef<number | null>(null)
  const at = (e: PointerEvent) => pointOn(svg.current, size, e)
  const shown = found ? [found.known.from, found.known.to, found.span.from, found.span.to] : lines.points
  const grip = Math.max(size.width, size.height) / 28
  return (
    <svg
      ref={svg}
      className="measure-picture"
      style={{ width: pictureWidth(size) }}
      viewBox={`0 0 ${size.width} ${size.height}`}
      role="img"
      aria-label="The photo: tap the ends of two lines"
      onPointerDown={(e) => {
        if (held.current === null) onAct({ type: 'tap', at: at(e) })
      }}
    >
      <image href={props.url} width={size.width} height={size.height} />
      {[0, 2].map((i) => {
        const [a, b] = [shown[i], shown[i + 1]]
        return a && b ? (
          <line key={i} x1={a.x} y1={a.y} x2={b.x} y2={b.y} className={i === 0 ? 'measure-known' : 'measure-ring'} />
        ) : null
      })}
      {shown.map((p, i) => (
        <circle
          key={i}
          cx={p.x}
          cy={p.y}
          r={grip}
          className="measure-end"
          onPointerDown={(e) => {
            e.stopPropagation()
            e.currentTarget.setPointerCapture(e.pointerId)
            held.current = i
          }}
          onPointerMove={(e) => {
            if (held.current === i) onAct({ type: 'pull', end: i, at: at(e) })
          }}
          onPointerUp={() => {
            held.current = null
          }}
        />
      ))}
    </svg>
  )
}
