import { Key, Plain } from '@web/kit/Keys.tsx'
import { Fragment, useState } from 'react'
import { Link } from 'react-router'
import { type FindingLine, type LookGun } from '@contract/rightparts.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { wireSize, type Units } from '@web/format/numbers.ts'
import { capital, partLabel, partName } from '@web/format/words.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { asTheBay, lookBody, lookedAt, readable, settingChoices, type Seen } from './look.ts'
import { useLook } from './queries.ts'
import { findingSentence, SETTING_WORD, settingWords } from './words.ts'

interface Props {
  gun: LookGun
  place: string
  shop: ShopAnswer
  units: Units
  last: { name: string; findings: FindingLine[] | null } | null
  onSeen: (findings: FindingLine[] | null) => void
  onSkip: () => void
  onLeave: () => void
}
/** Which row is open: a position, the wire, or one of the rolls. */
type Row = string | null

/** One gun: one tap when it is as the bay, a tap and a choice for each thing that differs. */
export function LookAtGun(props: Props) {
  const { gun, shop, units, last } = props
  const bay = asTheBay(gun, shop)
  const [seen, setSeen] = useState<Seen>(bay)
  const [row, setRow] = useState<Row>(null)
  const look = useLook()
  const isChanged = JSON.stringify(seen) !== JSON.stringify(bay)
  const send = () => look.mutate(lookBody(gun, seen), { onSuccess: (answer) => props.onSeen(answer?.findings ?? null) })
  return (
    <main className="look-gun">
      <header>
        <Key size="low" onClick={props.onLeave}>
          list
        </Key>
        <h1>{gun.name}</h1>
        <p className="dim">{props.place}</p>
      </header>
      {last ? <Last last={last} units={units} /> : null}
      <div className="look-keys">
        <Key tone="chalk" disabled={look.isPending} onClick={send}>
          {isChanged ? 'That is what is on it' : 'As the bay'}
        </Key>
        <Key onClick={props.onSkip}>Not now</Key>
      </div>
      <Trouble problem={look.error} />
      <p className="small-print">Tap what is different. Power off before you open the arm.</p>
      <ul className="plain look-rows">
        <LookRow
          label="wire on the spool"
          value={shop.wires.find((w) => w.id === seen.wireId)?.name ?? 'not said'}
          isOpen={row === 'wire'}
          isChanged={seen.wireId !== bay.wireId}
          onOpen={() => setRow(row === 'wire' ? null : 'wire')}
          options={shop.wires.map((w) => ({ key: w.id, name: w.name }))}
          make={`/bay?area=${gun.areaId}`}
          onPick={(wireId) => {
            setSeen({ ...seen, wireId })
            setRow(null)
          }}
        />
        <PartRows {...props} seen={seen} bay={bay} row={row} setRow={setRow} onSeenChange={setSeen} />
        <SettingRows {...props} seen={seen} bay={bay} row={row} setRow={setRow} onSeenChange={setSeen} />
      </ul>
    </main>
  )
}

interface RowsProps {
  gun: LookGun
  shop: ShopAnswer
  units: Units
  seen: Seen
  bay: Seen
  row: Row
  setRow: (row: Row) => void
  onSeenChange: (seen: Seen) => void
}

function RollRows({ gun, shop, units, seen, bay, row, setRow, onSeenChange }: RowsProps) {
  if (!gun.positions.some((p) => p.kindKey === 'rolls')) return null
  return seen.reads.map((mm, i) => {
    const key = `roll ${i + 1}`
    return (
      <LookRow
        key={key}
        label={`${key}: number facing you`}
        value={mm === null ? 'not said' : wireSize(mm, units)}
        isOpen={row === key}
        isChanged={mm !== bay.reads[i]}
        onOpen={() => setRow(row === key ? null : key)}
        options={readable(seen, shop).map((size) => ({ key: String(size), name: wireSize(size, units) }))}
        make={`/bay?area=${gun.areaId}`}
        onPick={(size) => {
          onSeenChange({ ...seen, reads: seen.reads.map((r, j) => (j === i ? Number(size) : r)) })
          setRow(null)
        }}
      />
    )
  })
}

function PartRows(rows: RowsProps) {
  const { gun, shop, seen, bay, row, setRow, onSeenChange } = rows
  return lookedAt(gun, shop).map((p) => {
    const known = p.partId !== p.bayPartId ? shop.parts.find((x) => x.id === p.partId) : undefined
    const id = seen.parts[p.position]
    const part = shop.parts.find((x) => x.id === id)
    const line = (
      <LookRow
        key={p.position}
        label={partName(p.position)}
        note={known ? `on record: ${known.code}` : null}
        value={part ? partLabel(part) : id === null ? 'none of ours' : 'not said'}
        isOpen={row === p.position}
        isChanged={id !== bay.parts[p.position]}
        onOpen={() => setRow(row === p.position ? null : p.position)}
        options={[
          ...shop.parts.filter((x) => x.kindKey === p.kindKey).map((x) => ({ key: x.id, name: partLabel(x) })),
          { key: '', name: 'none of ours' },
        ]}
        make={`/bay?area=${gun.areaId}`}
        onPick={(next) => {
          onSeenChange({ ...seen, parts: { ...seen.parts, [p.position]: next || null } })
          setRow(null)
        }}
      />
    )
    return p.kindKey === 'rolls' ? (
      <Fragment key={p.position}>
        {line}
        <RollRows {...rows} />
      </Fragment>
    ) : (
      line
    )
  })
}

/** Set-up beside the parts: what was last said stands there, and only what somebody taps is sent. */
function SettingRows({ gun, shop, units, seen, row, setRow, onSeenChange }: RowsProps) {
  return settingChoices(shop).map(({ name, values }) => {
    const value = seen.settings[name] ?? gun.settings[name]
    return (
      <LookRow
        key={name}
        label={SETTING_WORD[name]}
        value={value === undefined ? 'not said' : settingWords(name, value, units)}
        isOpen={row === name}
        isChanged={seen.settings[name] !== undefined}
        onOpen={() => setRow(row === name ? null : name)}
        options={values.map((v) => ({ key: v, name: settingWords(name, v, units) }))}
        make={`/bay?area=${gun.areaId}`}
        onPick={(v) => {
          onSeenChange({ ...seen, settings: { ...seen.settings, [name]: v } })
          setRow(null)
        }}
      />
    )
  })
}

function LookRow(props: {
  label: string
  value: string
  note?: string | null
  isOpen: boolean
  isChanged: boolean
  onOpen: () => void
  options: readonly { key: string; name: string }[]
  /** Where what is missing is made. */
  make: string
  onPick: (key: string) => void
}) {
  return (
    <li className={props.isChanged ? 'is-changed' : ''}>
      <Plain className="look-row" aria-expanded={props.isOpen} onClick={props.onOpen}>
        <span className="dim">{capital(props.label)}</span>
        <strong>
          {props.value}
          {props.note ? <small className="dim">{props.note}</small> : null}
        </strong>
      </Plain>
      {props.isOpen && props.options.length === 0 ? (
        <p className="look-options said">
          The shop has none yet: <Link to={props.make}>seven questions about the bay make them</Link>.
        </p>
      ) : null}
      {props.isOpen && props.options.length > 0 ? (
        <div className="look-options">
          {props.options.map((o) => (
            <Key key={o.key} size="low" onClick={() => props.onPick(o.key)}>
              {o.name}
            </Key>
          ))}
        </div>
      ) : null}
    </li>
  )
}

/** The gun before this one, in one line: what was found there. */
function Last({ last, units }: { last: NonNullable<Props['last']>; units: Units }) {
  const [worst] = (last.findings ?? []).filter((f) => f.severity !== 'note' && f.kept === null)
  return (
    <p role="status" className={worst?.severity === 'stops' ? 'look-last is-wrong' : 'look-last'}>
      {last.name}:{' '}
      {worst
        ? findingSentence(worst, units)
        : last.findings
          ? 'fits.'
          : 'kept here; whether it fits is told when there is a link.'}
    </p>
  )
}
