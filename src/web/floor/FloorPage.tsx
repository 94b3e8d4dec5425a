import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { COLUMNS, type Column } from '@core/path/columns.ts'
import { useIsLead, useMe } from '@web/people/queries.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { LateLine } from '@web/parts/LateLine.tsx'
import { FloorView } from './FloorView.tsx'
import { useFloor } from './queries.ts'
import { useArrows, useFloorLetters } from './useArrows.ts'
import { type Draw } from './Strands.tsx'

const isColumn = (text: string | null): text is Column => COLUMNS.some((c) => c === text)

/** Floor: area and column live in the address, so a view can be sent to somebody. */
export function FloorPage() {
  const [params, setParams] = useSearchParams()
  const areaId = params.get('area')
  const column = params.get('column')
  const me = useMe()
  const isLead = useIsLead()
  useArrows()
  useFloorLetters()
  const floor = useFloor(areaId, isColumn(column) ? column : null)
  const [draw, setDraw] = useState<Draw | null>(null)
  const set = (key: string, value: string | null) => {
    setDraw(null)
    setParams((before) => {
      if (value) before.set(key, value)
      else before.delete(key)
      return before
    })
  }
  if (floor.isPending)
    return (
      <main className="floor" aria-busy="true">
        <h1 className="sentence dim">Looking over the floor …</h1>
      </main>
    )
  if (!floor.data)
    return (
      <main className="floor">
        <Trouble problem={floor.error} />
      </main>
    )
  return (
    <>
      {areaId === null || isLead ? <LateLine /> : null}
      <FloorView
        floor={floor.data}
        units={me.data?.units ?? 'metric'}
        areaId={areaId}
        column={isColumn(column) ? column : null}
        draw={draw}
        isLead={isLead}
        onArea={(id) => set('area', id)}
        onColumn={(c) => set('column', c)}
        onDraw={setDraw}
      />
    </>
  )
}
