import { Button } from 'react-bootstrap'
import { type ImportPreview } from '@contract/ingest.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { PickOne, type Option } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { FillField } from './FillField.tsx'
import { FirstPlaces } from './FirstPlaces.tsx'
import { FILLABLE, inRows } from './sheetwords.ts'
import { type useSheet } from './useSheet.ts'

interface Props {
  preview: ImportPreview
  sheet: ReturnType<typeof useSheet>
  shop: ShopAnswer
}

/** What only somebody of the shop can know: a word of theirs for a part, kept for good, and which gun a name means. */
export function Asked(props: Props) {
  const { words, names, wanted, columns } = props.preview
  const isSaid = (key: string) => Boolean(props.sheet.said.fill?.[key])
  const missing = wanted.filter(
    (w) => w.isNeeded && FILLABLE.has(w.key) && (isSaid(w.key) || columns[w.key] === undefined),
  )
  return (
    <>
      {missing.map((w) => (
        <OnceForAll key={w.key} column={w} sheet={props.sheet} shop={props.shop} />
      ))}
      {words.length > 0 ? <Words {...props} /> : null}
      {names.length > 0 ? <NamesOfPlaces {...props} /> : null}
    </>
  )
}

/** What no column of the sheet says, once for all its rows. */
function OnceForAll({
  column,
  sheet,
  shop,
}: { column: ImportPreview['wanted'][number] } & Pick<Props, 'sheet' | 'shop'>) {
  const areas = column.key === 'area' ? shop.areas : []
  return (
    <section className="note-groups" aria-label={`The ${column.label} of every row`}>
      <h2>No column says the {column.label}. Which is it, for every row?</h2>
      <div className="d-flex gap-2 flex-wrap align-items-end">
        <FillField column={column} sheet={sheet} />
        {areas.map((a) => (
          <Button key={a.id} onClick={() => sheet.fill(column.key, a.name)}>
            {a.name}
          </Button>
        ))}
      </div>
    </section>
  )
}

const NO_PART = '-'
function Words({ preview, sheet, shop }: Props) {
  const kinds: Option[] = [[NO_PART, 'no part of a gun'], ...shop.kinds.map((k): Option => [k.key, k.name])]
  return (
    <section className="note-groups" aria-label="Words of yours">
      <h2>What do you mean by these? You are asked once.</h2>
      {preview.words.map(({ word, notes, examples }) => (
        <div key={word} className="asked-word">
          <PickOne
            id={`word-${word}`}
            label={`“${word}” is`}
            value=""
            none="…"
            options={kinds}
            onPick={(kindKey) => sheet.explain(word, kindKey === NO_PART ? null : kindKey)}
          />
          <p className="small-print">
            {inRows(notes)}: {examples.map((e) => `“${e}”`).join(' · ')}
          </p>
        </div>
      ))}
      <Trouble problem={sheet.word.error} />
    </section>
  )
}

const OUT = 'out'
const NO_GUNS = 'No guns are set up yet. Are these the ones? Say where they stand.'
function NamesOfPlaces({ preview, sheet, shop }: Props) {
  const guns: Option[] = [[OUT, 'none: leave its rows out'], ...shop.stations.map((s): Option => [s.id, s.name])]
  const unsaid = preview.names.filter(({ name }) => !sheet.said.names?.[name]).map(({ name }) => name)
  return (
    <section className="note-groups" aria-label="Names nobody painted on a place">
      <h2>{shop.stations.length > 0 ? 'No place here is called that. Which is it?' : NO_GUNS}</h2>
      {unsaid.length > 0 ? (
        <FirstPlaces
          key={unsaid.join()}
          names={unsaid.join(', ')}
          areaNames={shop.areas.map((a) => a.name)}
          onMade={() => sheet.read({ kind: preview.kind })}
        />
      ) : null}
      <div className="built-form">
        {preview.names.map(({ name, rows }) => (
          <PickOne
            key={name}
            id={`name-${name}`}
            label={`“${name}”, ${inRows(rows)}`}
            value={sheet.said.names?.[name] ?? ''}
            none="…"
            options={guns}
            onPick={(stationId) => sheet.name(name, stationId)}
          />
        ))}
      </div>
    </section>
  )
}
