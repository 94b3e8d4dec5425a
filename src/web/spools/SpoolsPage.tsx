import { Plain } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useIsLead, useMe } from '@web/people/queries.ts'
import { useShop } from '@web/shopmodel/queries.ts'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { BookIn } from './BookIn.tsx'
import { Opened, type Open } from './Opened.tsx'
import { SpoolDrawing } from './SpoolDrawing.tsx'
import { useSpoolAct, useSpools } from './queries.ts'
import { emptySentence, leftSentence, length, soonEmpty, spoolsSentence, wasteSentence } from './spoolwords.ts'
import { type SpoolOnGun, type SpoolsAnswer } from '@contract/spools.ts'
import { type Units } from '@web/format/numbers.ts'

/** Spools: is there enough wire? What is left on every gun and on the shelf. */
export function SpoolsPage() {
  const spools = useSpools()
  const shop = useShop()
  const me = useMe()
  const isLead = useIsLead()
  const act = useSpoolAct()
  const isPhone = useIsPhone()
  const [params, setParams] = useSearchParams()
  const [chosen, setOpen] = useState<Open | null>(null)
  const units = me.data?.units ?? 'metric'
  if (!spools.data)
    return (
      <main className="spools">
        <Waiting says="Counting the spools" problem={spools.error} />
      </main>
    )
  const open = chosen ?? byNumber(spools.data, params.get('number'))
  const choose = (next: Open | null) => {
    act.reset()
    setOpen(next)
    setParams({})
  }
  const areas = (shop.data?.areas ?? []).map((a) => ({ ...a, guns: spools.data.guns.filter((g) => g.areaId === a.id) }))
  const soon = new Set(soonEmpty(spools.data).map((g) => g.stationId))
  return (
    <main className="spools">
      <h1 className="sentence">{spoolsSentence(spools.data)}</h1>
      <p className="honesty dim">
        {wasteSentence(spools.data, units)}{' '}
        <Link className="bare" to="/day">
          group a day’s wires
        </Link>{' '}
        <Link className="bare" to="/jobs">
          wire for jobs
        </Link>{' '}
        {isLead ? (
          <Link className="bare" to="/waste">
            where wire goes
          </Link>
        ) : null}
      </p>
      {open ? (
        <Opened
          key={JSON.stringify(open)}
          open={open}
          spools={spools.data}
          units={units}
          act={act}
          onDone={() => choose(null)}
        />
      ) : null}
      {areas.map((area) =>
        area.guns.length === 0 ? null : (
          <section key={area.id} aria-label={area.name}>
            <h2>{area.name}</h2>
            <div className="spool-grid">
              {area.guns.map((g) => (
                <GunSpool
                  key={g.stationId}
                  gun={g}
                  spools={spools.data}
                  units={units}
                  isSoon={soon.has(g.stationId)}
                  onOpen={choose}
                />
              ))}
            </div>
          </section>
        ),
      )}
      <Shelf spools={spools.data} units={units} onOpen={choose} />
      <BookIn spools={spools.data} units={units} />
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

/** The spool whose label was scanned. */
function byNumber(spools: SpoolsAnswer, text: string | null): Open | null {
  const number = Number(text)
  if (!text) return null
  const gun = spools.guns.find((g) => g.number === number)
  const shelf = spools.shelf.find((s) => s.number === number)
  return gun ? { stationId: gun.stationId } : shelf ? { spoolId: shelf.spoolId } : null
}

function GunSpool(props: {
  gun: SpoolOnGun
  spools: SpoolsAnswer
  units: Units
  isSoon: boolean
  onOpen: (open: Open) => void
}) {
  const { gun, spools, units } = props
  return (
    <Plain
      className={props.isSoon ? 'spool-cell spool-soon' : 'spool-cell'}
      onClick={() => props.onOpen({ stationId: gun.stationId })}
    >
      <SpoolDrawing build={gun.build} isRead={gun.how === 'weighed'} />
      <span>
        <strong>{gun.name}</strong> {gun.number ? <span className="dim">spool {gun.number}</span> : null}
        <span>{leftSentence(gun, units)}</span>
        <span className="dim">{emptySentence(gun, spools.nowMs, spools.zone)}</span>
      </span>
    </Plain>
  )
}

function Shelf({ spools, units, onOpen }: { spools: SpoolsAnswer; units: Units; onOpen: (open: Open) => void }) {
  const shelf = [...spools.shelf].sort((a, b) => Number(b.isShort) - Number(a.isShort) || a.number - b.number)
  return (
    <section aria-label="On the shelf">
      <h2>On the shelf</h2>
      {shelf.length === 0 ? (
        <p className="said dim">
          No spool with a number lies there. Book one in below, or take a part-used one off a gun.
        </p>
      ) : (
        <div className="spool-grid">
          {shelf.map((s) => (
            <Plain key={s.spoolId} className="spool-cell" onClick={() => onOpen({ spoolId: s.spoolId })}>
              <SpoolDrawing build={s.build} isRead={s.how !== 'said'} />
              <span>
                <strong>{s.number}</strong> <span className="dim">{s.wireName ?? 'wire not said'}</span>
                <span>{s.isNew ? 'full' : leftSentence(s, units)}</span>
                <span className="dim">
                  {s.isShort ? 'short end' : ''}
                  {s.isShort && s.metres !== null ? `, ${length(s.metres, units)}` : ''}
                  {s.lot ? `${s.isShort ? ' · ' : ''}lot ${s.lot}` : ''}
                </span>
              </span>
            </Plain>
          ))}
        </div>
      )}
    </section>
  )
}
