import { lazy, Suspense } from 'react'
import { type Curves } from './axes.ts'

const Drawn = lazy(async () => ({ default: (await import('./Drawn.tsx')).Drawn }))

/** Curves with axes. What draws them is heavy and comes only where one is shown; until then its place is kept, and its words are there. */
export const CurveChart = ({ className, ...curves }: Curves & { className: string }) => (
  <div className={className}>
    <Suspense fallback={<div role="img" aria-label={curves.says} />}>
      <Drawn {...curves} />
    </Suspense>
  </div>
)
