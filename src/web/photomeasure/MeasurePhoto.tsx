import { useState } from 'react'
import { type Ellipse, type Point } from '@core/photomeasure/ellipse.ts'
import { measures, typed } from '@web/format/measures.ts'
import { field, TextField } from '@web/kit/Field.tsx'
import { type Answer } from './asked.ts'
import { answerSentence, ringsOf } from './photowords.ts'
import { RoundPicture, sizeOf, type HandRings } from './RoundPicture.tsx'
import { TakePhoto, useObjectUrl } from './TakePhoto.tsx'
import { useMeasure, type Measuring } from './useMeasure.ts'

/** The face of a tip is told in millimetres: callipers at the bench read them. */
const FACE = measures('metric').rule
const KEPT = 'tip-face-mm'
const keptSize = () => localStorage.getItem(KEPT) ?? ''
const NONE: HandRings = { inner: null, outer: null }

/**
 * Something round measured on a photo: a tip's bore (what its face measures across gives the scale), or how open a nozzle is (a share
 * needs none). A tap gives the middle; rings can be drawn by hand where what was found is not the rim.
 */
export function MeasurePhoto(props: {
  of: 'bore' | 'nozzle'
  onAnswer: (answer: Answer | null) => void
  onPhoto: (file: File) => void
}) {
  const { of, onAnswer } = props
  const [file, setFile] = useState<Blob | null>(null)
  const [outer, setOuter] = useState(keptSize)
  const [tap, setTap] = useState<Point | null>(null)
  const [rings, setRings] = useState(NONE)
  const m = useMeasure(onAnswer)
  const url = useObjectUrl(file)
  const outerMm = of === 'bore' ? typed(outer, FACE) : 1
  const ask = (centre: Point, by: HandRings) => {
    setTap(centre)
    setRings(by)
    const tapped = { centre, innerPx: by.inner, outerPx: by.outer }
    if (of === 'nozzle') return m.nozzle(tapped)
    if (outerMm === null || outerMm <= 0) return
    localStorage.setItem(KEPT, outer)
    m.bore({ ...tapped, outerMm })
  }
  const choose = (chosen: File) => {
    setFile(chosen)
    setTap(null)
    setRings(NONE)
    m.open(chosen)
    props.onPhoto(chosen)
  }
  const known = typeof m.size === 'object' ? m.size : null
  const found = ringsOf(m.answer)
  return (
    <div className="measure">
      {of === 'bore' ? (
        <TextField
          id="measure-outer"
          label="The face measures across, mm"
          inputMode="decimal"
          placeholder="8"
          {...field(outer, setOuter)}
        />
      ) : null}
      <TakePhoto word={file ? 'another photo' : 'a photo'} onPhoto={choose} />
      {m.size === 'unreadable' ? <p className="step-look">That is no picture this device can read.</p> : null}
      {known && url ? (
        <RoundPicture
          url={url}
          size={known}
          found={found}
          tap={tap}
          rings={rings}
          onTap={(p) => ask(p, rings)}
          onRings={(next) => ask(found?.[0].centre ?? tap ?? { x: 0, y: 0 }, next)}
        />
      ) : null}
      {known && tap ? (
        <Rings
          most={Math.min(known.width, known.height) / 2}
          rings={rings}
          found={found}
          onRings={(next) => ask(tap, next)}
        />
      ) : null}
      <p className="measure-says" role="status">
        {saysOf({ m, of, isOpen: known !== null, isTapped: tap !== null, hasScale: (outerMm ?? 0) > 0 })}
      </p>
    </div>
  )
}

function saysOf(at: {
  m: Measuring
  of: 'bore' | 'nozzle'
  isOpen: boolean
  isTapped: boolean
  hasScale: boolean
}): string {
  const { m } = at
  if (!at.isOpen) return m.isBusy ? 'Reading the picture…' : ''
  if (!at.hasScale) return 'Say what the face measures across: it gives the scale.'
  if (!at.isTapped) return `Tap the middle of the ${at.of === 'bore' ? 'bore' : 'tip'}.`
  if (m.isBusy || !m.answer) return 'Measuring…'
  return answerSentence(m.answer)
}

type Found = readonly [Ellipse, Ellipse] | null
/** Rings by hand, where what was found is not the rim. */
function Rings(props: { most: number; rings: HandRings; found: Found; onRings: (rings: HandRings) => void }) {
  const { most, rings, found, onRings } = props
  const ring = (key: 'inner' | 'outer', name: string) => {
    const seen = found ? sizeOf(found[key === 'inner' ? 0 : 1]) : null
    return (
      <label className="measure-slide">
        {name}
        <input
          type="range"
          min={3}
          max={most}
          step={1}
          value={rings[key] ?? seen ?? most / (key === 'inner' ? 6 : 1.5)}
          onChange={(e) => onRings({ ...rings, [key]: Number(e.target.value) })}
        />
      </label>
    )
  }
  return (
    <div className="measure-rings">
      {ring('inner', 'inner ring')}
      {ring('outer', 'outer ring')}
    </div>
  )
}
