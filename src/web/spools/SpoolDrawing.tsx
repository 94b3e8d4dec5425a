const R = 26
const CORE = 9

/** A spool end on: flange, core, and the wire as high as it still stands. Hollow where it is only worked out; dotted where nobody knows. */
export function SpoolDrawing({ build, isRead }: { build: number | null; isRead: boolean }) {
  const outer = CORE + Math.max(0, Math.min(1, build ?? 0)) * (R - 3 - CORE)
  return (
    <svg
      className="spool"
      viewBox={`${-R - 1} ${-R - 1} ${2 * R + 2} ${2 * R + 2}`}
      width="56"
      height="56"
      aria-hidden="true"
    >
      <circle
        r={R}
        className="flange"
        {...(build === null ? { strokeDasharray: '1 5', strokeLinecap: 'round' } : {})}
      />
      {build !== null && outer > CORE + 0.5 ? (
        isRead ? (
          <circle r={(outer + CORE) / 2} className="wound" strokeWidth={outer - CORE} />
        ) : (
          <circle r={outer} className="wound-edge" />
        )
      ) : null}
      <circle r={CORE} className="core" />
    </svg>
  )
}
