import { useContext } from 'react'
import { CAUTIONS, hazardsIn, type Hazard } from '@core/guide/cautions.ts'
import { AtCell } from '@web/kit/atcell.ts'

/** What can hurt at this, as it is where it is done; nothing where nothing can. */
export function CautionLines({ hazards, className }: { hazards: readonly Hazard[]; className: string }) {
  const here = hazardsIn(hazards, useContext(AtCell))
  if (here.length === 0) return null
  return <p className={className}>{here.map((h) => CAUTIONS[h].words).join(' ')}</p>
}
