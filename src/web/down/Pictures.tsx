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
