import { useState } from 'react'
import { useParams } from 'react-router'
import { type Column } from '@core/path/columns.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { choiceOf, LETTERS, type Letter } from '@web/log/letters.ts'
import { useBroughtLetter } from '@web/log/useBroughtLetter.ts'
import { useLogKeys } from '@web/log/useLogKeys.ts'
import { useMe } from '@web/people/queries.ts'
import { useShortcuts } from '@web/kit/useShortcuts.ts'
import { Waiting } from '@web/kit/Waiting.tsx'
import { FirstHere, useFirstHere } from './FirstHere.tsx'
import { GunDesk } from './GunDesk.tsx'
import { GunPhone } from './GunPhone.tsx'
import { useGun } from '@web/gunnow/queries.ts'

/** A gun, by its place: at the desk the whole path drawn, at the booth the reach one works on and four big keys. */
export function GunPage() {
  const { stationId = '' } = useParams()
  const gun = useGun(stationId)
  const me = useMe()
  const isPhone = useIsPhone()
  const [chosen, setChosen] = useState<Column | null>(null)
  const driver = useLogKeys([stationId])
  const isDown = gun.data?.downSinceMs != null
  const press = (letter: Letter) => driver.tell({ type: 'chose', choice: choiceOf(letter, isDown) })
  useBroughtLetter(gun.data !== undefined, press)
  useShortcuts(
    {
      ...Object.fromEntries(LETTERS.map((letter) => [letter, () => press(letter)])),
      Escape: () => (driver.state.step === 'asking' ? driver.tell({ type: 'back' }) : setChosen(null)),
    },
    true,
  )
  const first = useFirstHere(me.data !== undefined && me.data.person === null)
  if (!gun.data)
    return (
      <main className="gun" aria-busy={gun.isPending}>
        <Waiting says="Reading the gun" problem={gun.error} />
      </main>
    )
  const props = {
    gun: gun.data,
    units: me.data?.units ?? ('metric' as const),
    chosen,
    onChoose: (c: Column | null) => setChosen(c === chosen ? null : c),
    driver,
  }
  if (first.isFirst) return <FirstHere key={stationId} gun={gun.data} driver={driver} onAll={first.knows} />
  return isPhone ? <GunPhone {...props} /> : <GunDesk {...props} />
}
