import { useRef, useState, type MouseEvent, type PointerEvent } from 'react'
import { axesOf, type Ellipse, type Point } from '@core/photomeasure/ellipse.ts'
import { pictureWidth, pointOn } from './TakePhoto.tsx'

/** Rings put by hand, px; null: as found. */
export interface HandRings {
  inner: number | null
  outer: number | null
}
type Which = keyof HandRings
export const sizeOf = (e: Ellipse) => Math.sqrt(axesOf(e).long * axesOf(e).short)

/** The photo with the two rings that were found, or put: a tap gives the middle, a ring is pulled wider or narrower. */
export function RoundPicture(props: {
  url: string
  size: { width: number; height: number }
  found: readonly [Ellipse, Ellipse] | null
  tap: Point | null
  rings: HandRings
  onTap: (at: Point) => void
  onRings: (rings: HandRings) => void
}) {
  const { size, found, tap, rings } = props
  const svg = useRef<SVGSVGElement>(null)
  // A pull ends in a click as well; that one is no tap.
  const isPull = useRef(false)
  const [pulled, setPulled] = useState<{ which: Which; px: number } | null>(null)
  const at = (e: MouseEvent) => pointOn(svg.current, size, e)
  const centreOf = (i: 0 | 1): Point | null => found?.[i].centre ?? tap
  const radiusAt = (e: PointerEvent, i: 0 | 1) => {
    const [p, c] = [at(e), centreOf(i)]
    return c ? Math.max(3, Math.hypot(p.x - c.x, p.y - c.y)) : 3
  }
  const grip = (which: Which, i: 0 | 1) => ({
    onPointerDown: (e: PointerEvent<SVGElement>) => {
      e.currentTarget.setPointerCapture(e.pointerId)
      isPull.current = true
      setPulled({ which, px: radiusAt(e, i) })
    },
    onPointerMove: (e: PointerEvent<SVGElement>) => {
      if (pulled?.which === which) setPulled({ which, px: radiusAt(e, i) })
    },
    onPointerUp: () => {
      if (pulled?.which === which) props.onRings({ ...rings, [which]: pulled.px })
      setPulled(null)
    },
  })
  return (
    <svg
      ref={svg}
      className="measure-picture"
      style={{ width: pictureWidth(size) }}
      viewBox={`0 0 ${size.width} ${size.height}`}
      role="img"
      aria-label="The photo: tap the middle"
      onClick={(e) => {
        if (!isPull.current) props.onTap(at(e))
        isPull.current = false
      }}
    >
      <image href={props.url} width={size.width} height={size.height} />
      {(['inner', 'outer'] as const).map((which, i) => {
        const k = i as 0 | 1
        const e = found?.[k] ?? null
        const centre = centreOf(k)
        const px = pulled?.which === which ? pulled.px : e ? null : rings[which]
        if (!centre || (px === null && !e)) return null
        return (
          <g key={which}>
            {px === null && e ? (
              <Ring of={e} />
            ) : (
              <circle cx={centre.x} cy={centre.y} r={px ?? 0} className="measure-ring" />
            )}
            <circle
              cx={centre.x}
              cy={centre.y}
              r={px ?? (e ? sizeOf(e) : 0)}
              className="measure-grip"
              {...grip(which, k)}
            />
          </g>
        )
      })}
    </svg>
  )
}

function Ring({ of }: { of: Ellipse }) {
  const { long, short, angleRad } = axesOf(of)
  const turn = `rotate(${(angleRad * 180) / Math.PI} ${of.centre.x} ${of.centre.y})`
  return <ellipse cx={of.centre.x} cy={of.centre.y} rx={long} ry={short} transform={turn} className="measure-ring" />
}
