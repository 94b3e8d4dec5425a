import { PLATE, type BeadPicture } from '@core/practice/picture.ts'
import { BEAD_S } from '@core/practice/bead.ts'

/** The plate with what was laid on it, as far as it has come. */
export function BeadShown({ picture, atS }: { picture: BeadPicture; atS: number | null }) {
  const share = atS === null ? 1 : atS / BEAD_S
  const seen = picture.slices.slice(0, Math.round(share * picture.slices.length))
  const endX = seen.at(-1)?.x ?? 0
  const middle = PLATE.height / 2
  return (
    <svg
      className="bead-shown"
      viewBox={`0 0 ${PLATE.width} ${PLATE.height}`}
      role="img"
      aria-label={beadWords(picture)}
    >
      <rect className="bead-plate" x="0" y="0" width={PLATE.width} height={PLATE.height} />
      <path className="bead-joint" d={`M0 ${middle}H${PLATE.width}`} />
      {picture.soot > 0.05 ? (
        <rect
          className="bead-soot"
          style={{ opacity: 0.75 * picture.soot }}
          {...{ x: 3, y: middle - 7, width: Math.max(0, endX - 1), height: 14, rx: 6 }}
        />
      ) : null}
      <path className="bead-metal" d={outline(seen, middle)} />
      {picture.ripples
        ? seen
            .filter((s) => s.half > 0)
            .map((s) => (
              <path
                key={s.x}
                className="bead-ripple"
                d={`M${s.x} ${middle + s.off - s.half * 0.8}q1.1 ${s.half * 0.8} 0 ${s.half * 1.6}`}
              />
            ))
        : null}
      {picture.holes
        .filter((h) => h.x <= endX)
        .map((h) => (
          <circle key={`${h.x} ${h.y}`} className="bead-hole" cx={h.x} cy={h.y} r={h.r} />
        ))}
      {picture.spatter
        .filter((d) => d.x <= endX)
        .map((d) => (
          <circle key={`${d.x} ${d.y}`} className="bead-ball" cx={d.x} cy={d.y} r={d.r} />
        ))}
    </svg>
  )
}

/** Stretches of metal, each closed for itself. */
function outline(slices: BeadPicture['slices'], middle: number): string {
  const stretches: BeadPicture['slices'][] = []
  for (const [i, s] of slices.entries()) {
    if (s.half <= 0) continue
    if ((slices[i - 1]?.half ?? 0) > 0) stretches.at(-1)?.push(s)
    else stretches.push([s])
  }
  return stretches
    .map((of) => {
      const side = (sign: 1 | -1) => of.map((s) => `${s.x.toFixed(1)} ${(middle + s.off + sign * s.half).toFixed(2)}`)
      return `M${[...side(-1), ...side(1).reverse()].join('L')}Z`
    })
    .join('')
}

/** The same in words. */
export function beadWords({ slices, holes, spatter, soot }: BeadPicture): string {
  const laid = slices.filter((s) => s.half > 0).length / slices.length
  if (laid === 0) return 'Nothing was laid.'
  const off = Math.max(...slices.map((s) => Math.abs(s.off)))
  const said = [
    laid < 0.9 ? 'broken off' : null,
    holes.length > 2 ? 'with pinholes' : null,
    soot > 0.3 ? 'sooty' : null,
    spatter.length > 12 ? 'balls about it' : null,
    off > 1 ? 'wandering' : null,
  ].filter(Boolean)
  return said.length > 0 ? `A bead: ${said.join(', ')}.` : 'An even bead.'
}
