import { type Picture } from '@core/diagnose/knowledge.ts'

/** A few lines each, of how it looks; the word under it says it. */
const LINES: Record<Exclude<Picture, 'else'>, readonly { d: string; is: 'wire' | 'body' | 'mark' }[]> = {
  stopped: [
    { d: 'M14 26h52v24H14z', is: 'body' },
    { d: 'M0 38h66', is: 'wire' },
    { d: 'M84 28l20 20M104 28l-20 20', is: 'mark' },
  ],
  jerks: [
    { d: 'M24 22a12 12 0 1 0 .1 0zM24 46a12 12 0 1 0 .1 0z', is: 'body' },
    { d: 'M0 46h40l8-14 8 26 8-26 8 26 8-12h40', is: 'wire' },
  ],
  nest: [
    { d: 'M24 12a12 12 0 1 0 .1 0zM24 44a12 12 0 1 0 .1 0z', is: 'body' },
    { d: 'M0 40h38c10-30 34-20 26 0s-30 22-26 2 38-28 40-6-24 28-30 10', is: 'wire' },
  ],
  stuck: [
    { d: 'M20 28h50l24 6v8l-24 6H20z', is: 'body' },
    { d: 'M0 38h90', is: 'wire' },
    { d: 'M92 38a7 7 0 1 0 14 0a7 7 0 1 0 -14 0', is: 'mark' },
  ],
  holes: [
    { d: 'M6 50c16-16 30-16 46 0s30 16 56 0v16H6z', is: 'body' },
    {
      d: 'M26 50a3 3 0 1 0 6 0a3 3 0 1 0 -6 0M56 58a4 4 0 1 0 8 0a4 4 0 1 0 -8 0M84 56a3 3 0 1 0 6 0a3 3 0 1 0 -6 0',
      is: 'mark',
    },
  ],
  start: [
    { d: 'M18 18h44l20 8v6l-20 8H18z', is: 'body' },
    { d: 'M0 29h92', is: 'wire' },
    { d: 'M8 66h104M92 36l-4 8h8l-4 8', is: 'mark' },
  ],
  bead: [
    { d: 'M8 58h104v10H8z', is: 'body' },
    { d: 'M60 6v20', is: 'wire' },
    { d: 'M60 26l-12 26M60 26l12 26M40 58q20 -14 40 0', is: 'body' },
    { d: 'M26 44l.1 0M94 40l.1 0M16 30l.1 0M104 26l.1 0', is: 'mark' },
  ],
  nozzle: [
    { d: 'M18 12h60l14 6v6l-14 -4H18zM18 64h60l14 -6v-6l-14 4H18z', is: 'body' },
    { d: 'M18 30h40l12 5v6l-12 5H18z', is: 'body' },
    { d: 'M4 38h104', is: 'wire' },
  ],
  liner: [
    { d: 'M44 24h72M44 52h72', is: 'body' },
    { d: 'M6 30h66M6 46h66M10 46l6 -16M22 46l6 -16M34 46l6 -16M46 46l6 -16M58 46l6 -16', is: 'mark' },
    { d: 'M72 38h44', is: 'wire' },
  ],
  robot: [
    {
      d: 'M14 70h30M29 70V44M29 44L58 20L88 34M23 44a6 6 0 1 0 12 0a6 6 0 1 0 -12 0M52 20a6 6 0 1 0 12 0a6 6 0 1 0 -12 0',
      is: 'body',
    },
    { d: 'M88 34l10 24', is: 'wire' },
    { d: 'M98 58l6 10', is: 'mark' },
  ],
}

export function SymptomPicture({ of }: { of: Picture }) {
  if (of === 'else') return null
  return (
    <svg viewBox="0 0 120 76" className="symptom-picture" aria-hidden="true">
      {LINES[of].map(({ d, is }) => (
        <path key={d} d={d} className={`line-${is}`} />
      ))}
    </svg>
  )
}
