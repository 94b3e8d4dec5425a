import { useEffect, useMemo, useState, type MouseEvent } from 'react'
import { axesOf, type Ellipse, type Point } from '@core/photomeasure/ellipse.ts'
import { type BoreMeasured } from '@core/photomeasure/bore.ts'
import { OVAL_LIMIT } from '@core/reading/target.ts'
import { parseNumber } from '@core/ingest/columns.ts'
import { field, TextField } from '@web/shell/Field.tsx'
import { boreSentence, isClose, REFUSED } from './photowords.ts'
import { useMeasure } from './useMeasure.ts'

const KEPT = 'tip-face-mm'
const keptSize = () => localStorage.getItem(KEPT) ?? ''

/** A tip's bore measured on a photo: what its face measures across gives the scale, a tap the middle; rings can be drawn by hand. */
export function MeasureBore({ onMeasured }: { onMeasured: (bore: BoreMeasured | null) => void }) {
  const [file, setFile] = useState<Blob | null>(null)
  const [outer, setOuter] = useState(keptSize)
  const [tap, setTap] = useState<Point | null>(null)
  const [rings, setRings] = useState<{ bore: number | null; outer: number | null }>({ bore: null, outer: null })
  const { size, bore, isBusy, open, measure } = useMeasure(onMeasured)
  const url = useObjectUrl(file)
  const outerMm = parseNumber(outer)
  const ask = (centre: Point, of = rings) => {
    setTap(centre)
    if (outerMm === null || outerMm <= 0) return
    localStorage.setItem(KEPT, outer)
    measure({ centre, borePx: of.bore, outerPx: of.outer, outerMm })
  }
  const found = bore?.ok ? bore : null
  const known = typeof size === 'object' ? size : null
  return (
    <div className="measure">
      <TextField
        id="measure-outer"
        label="The face measures across, mm"
        inputMode="decimal"
        placeholder="8"
        {...field(outer, setOuter)}
      />
      <label className="btn photo-add">
        {file ? 'another photo' : 'a photo'}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="visually-hidden"
          onChange={(e) => {
            const [chosen] = e.target.files ?? []
            if (!chosen) return
            setFile(chosen)
            setTap(null)
            setRings({ bore: null, outer: null })
            open(chosen)
          }}
        />
      </label>
      {size === 'unreadable' ? <p className="step-look">That is no picture this device can read.</p> : null}
      {known && url ? (
        <Picture url={url} size={known} found={found} tap={tap} rings={rings} onTap={(p) => ask(p)} />
      ) : null}
      {known && tap ? (
        <Rings
          most={Math.min(known.width, known.height) / 2}
          rings={rings}
          found={found}
          onRings={(next) => {
            setRings(next)
            ask(tap, next)
          }}
        />
      ) : null}
      <p className="measure-says" role="status">
        {saysOf({ known: known !== null, tap, outerMm, isBusy, bore })}
      </p>
    </div>
  )
}

function saysOf(at: {
  known: boolean
  tap: Point | null
  outerMm: number | null
  isBusy: boolean
  bore: ReturnType<typeof useMeasure>['bore']
}): string {
  if (!at.known) return at.isBusy ? 'Reading the picture…' : ''
  if (at.outerMm === null || at.outerMm <= 0) return 'Say what the face measures across: it gives the scale.'
  if (!at.tap) return 'Tap the middle of the bore.'
  if (at.isBusy || !at.bore) return 'Measuring…'
  if (!at.bore.ok) return REFUSED[at.bore.reason]
  const close = isClose(at.bore, OVAL_LIMIT) ? ' That is too near the limit to tell: measure another way.' : ''
  return `${boreSentence(at.bore)}${close}`
}

/** The address of a picture in memory, given back when it is no longer shown. */
function useObjectUrl(file: Blob | null): string | null {
  const url = useMemo(() => (file ? URL.createObjectURL(file) : null), [file])
  useEffect(() => () => (url ? URL.revokeObjectURL(url) : undefined), [url])
  return url
}

function Picture(props: {
  url: string
  size: { width: number; height: number }
  found: BoreMeasured | null
  tap: Point | null
  rings: { bore: number | null; outer: number | null }
  onTap: (at: Point) => void
}) {
  const { size, found, tap, rings } = props
  const at = (e: MouseEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect()
    props.onTap({
      x: ((e.clientX - box.left) / box.width) * size.width,
      y: ((e.clientY - box.top) / box.height) * size.height,
    })
  }
  return (
    <svg
      className="measure-picture"
      viewBox={`0 0 ${size.width} ${size.height}`}
      role="img"
      aria-label="The photo: tap the middle of the bore"
      onClick={at}
    >
      <image href={props.url} width={size.width} height={size.height} />
      {found ? (
        <>
          <Ring of={found.bore} />
          <Ring of={found.outer} />
        </>
      ) : tap ? (
        [rings.bore, rings.outer].map((r) =>
          r === null ? null : <circle key={r} cx={tap.x} cy={tap.y} r={r} className="measure-ring" />,
        )
      ) : null}
    </svg>
  )
}

function Ring({ of }: { of: Ellipse }) {
  const { long, short, angleRad } = axesOf(of)
  const turn = `rotate(${(angleRad * 180) / Math.PI} ${of.centre.x} ${of.centre.y})`
  return <ellipse cx={of.centre.x} cy={of.centre.y} rx={long} ry={short} transform={turn} className="measure-ring" />
}

/** Rings by hand, where what was found is not the rim. */
function Rings(props: {
  most: number
  rings: { bore: number | null; outer: number | null }
  found: BoreMeasured | null
  onRings: (rings: { bore: number | null; outer: number | null }) => void
}) {
  const { most, rings, found, onRings } = props
  const size = (e: Ellipse | undefined) => (e ? Math.sqrt(axesOf(e).long * axesOf(e).short) : null)
  const ring = (key: 'bore' | 'outer', name: string) => (
    <label className="measure-slide">
      {name}
      <input
        type="range"
        min={3}
        max={most}
        step={1}
        value={rings[key] ?? size(found?.[key]) ?? most / (key === 'bore' ? 6 : 1.5)}
        onChange={(e) => onRings({ ...rings, [key]: Number(e.target.value) })}
      />
    </label>
  )
  return (
    <div className="measure-rings">
      {ring('bore', 'inner ring')}
      {ring('outer', 'outer ring')}
    </div>
  )
}
