import { useEffect, useState } from 'react'
import { cellOf, rowsOf, type Clip } from '@core/photo/clip.ts'
import { Key } from '@web/kit/Keys.tsx'

/** A clip plays its pictures again and again, at its own pace or four times slower; where motion is not wanted it stands and is stepped. */
export function ClipPlayer(props: { src: string; clip: Clip; widthPx: number; heightPx: number }) {
  const { src, clip, widthPx, heightPx } = props
  const [at, setAt] = useState(0)
  const [pace, setPace] = useState<'stands' | 'plays' | 'slow'>(() =>
    matchMedia('(prefers-reduced-motion: reduce)').matches ? 'stands' : 'plays',
  )
  const step = (by: number) => setAt((i) => (i + by + clip.frames) % clip.frames)
  useEffect(() => {
    if (pace === 'stands') return
    const timer = setInterval(() => setAt((i) => (i + 1) % clip.frames), clip.stepMs * (pace === 'slow' ? SLOWER : 1))
    return () => clearInterval(timer)
  }, [pace, clip.frames, clip.stepMs])
  const { column, row } = cellOf(clip, at)
  const part = (i: number, of: number) => (of > 1 ? `${(100 * i) / (of - 1)}%` : '0%')
  const rows = rowsOf(clip)
  return (
    <>
      <div
        role="img"
        aria-label={`The clip, picture ${at + 1} of ${clip.frames}`}
        className="clip"
        style={{
          aspectRatio: `${widthPx / clip.perRow} / ${heightPx / rows}`,
          backgroundImage: `url(${src})`,
          backgroundSize: `${clip.perRow * 100}% ${rows * 100}%`,
          backgroundPosition: `${part(column, clip.perRow)} ${part(row, rows)}`,
        }}
      />
      <div className="clip-keys">
        <Key size="low" onClick={() => setPace(pace === 'plays' ? 'stands' : 'plays')}>
          {pace === 'plays' ? 'stop' : 'play'}
        </Key>
        <Key size="low" aria-pressed={pace === 'slow'} onClick={() => setPace(pace === 'slow' ? 'stands' : 'slow')}>
          slow
        </Key>
        {([-1, 1] as const).map((by) => (
          <Key
            key={by}
            size="low"
            onClick={() => {
              setPace('stands')
              step(by)
            }}
          >
            {by < 0 ? 'one back' : 'one on'}
          </Key>
        ))}
      </div>
    </>
  )
}
const SLOWER = 4
