import { Button } from 'react-bootstrap'
import { ALL_TABS } from '@core/ingest/tabs.ts'
import { type ImportKind } from '@contract/ingest.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { PickOne, TextField, type Option } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Asked } from './Asked.tsx'
import { Notes } from './Notes.tsx'
import { Previewed } from './Previewed.tsx'
import { useCancelImport, useProgress } from '@web/shopmodel/queries.ts'
import { counts, readAs } from './sheetwords.ts'
import { useSheet, type SheetAsked } from './useSheet.ts'

const EXAMPLE: Record<ImportKind, string> = {
  places:
    'place,area,part kind,part,put on,wire,cable\nA1,Bay A,tip,,2026-11-20,,4\nA1,Bay A,liner,,2026-09-01,,4\nA2,Bay A,,,,,4',
  usage: 'place,date,shift,arc hours,kg\nA1,2026-11-20,,2.4,\nA2,2026-11-20,,,6.1',
  purchases:
    'item,month,quantity,unit\ncontact tips,2026-08,4,box of 100\nsolid wire,2026-08,1.2,t\ngloves,2026-08,20,pairs',
  parts:
    'code,kind,family,size,for wire,made of,length m,faces,price,on hand\nT-10,tip,,1.0 mm,,,,,0.64,140\nL-10,liner,,,0.9–1.0,steel coil,4.5,,31.50,6\nR-10,drive rolls,,,,,,0.9 V / 1.0 V,24.50,4',
  families: 'family,tip thread,pin,liner held by,nozzle,neck mm\nfirst family,fine six,long,set screw,push-on,170',
  history: 'gun,date,what\nA1,20.11.2026,"tip x2 + liner, nest, bad wire?"\nA2,21.11.2026,nozzle cleaned',
}

/** Any sheet: what it holds and how it lies is read from it, every bad cell is named, and nothing is written before somebody says so. */
export function BringIn({ shop }: { shop: ShopAnswer }) {
  const sheet = useSheet()
  const { kind, text, preview, take, file } = sheet
  const example = kind === 'guess' ? 'history' : kind
  return (
    <div className="bring">
      <div className="d-flex gap-3 flex-wrap align-items-end">
        <TextField
          id="i-file"
          label="a file: CSV or XLSX"
          type="file"
          accept=".csv,.txt,.tsv,.xlsx,text/csv,text/plain"
          onChange={(e) => void sheet.load((e.target as HTMLInputElement).files?.[0])}
        />
        <PickOne id="i-kind" label="the sheet holds" value={kind} options={KINDS} onPick={sheet.choose} />
        <Button onClick={() => sheet.type(EXAMPLE[example])}>show me an example</Button>
        <a className="btn" href={`/api/ingest/sheet.csv?kind=${example}&blank=1`} download>
          a blank one to fill in
        </a>
        <a className="btn" href={`/api/ingest/sheet.csv?kind=${example}`} download>
          what is here, in your columns
        </a>
      </div>
      {file.data && file.data.sheets.length > 1 ? (
        <PickOne
          id="i-sheet"
          label="which sheet of the workbook"
          value={file.data.sheet ?? ''}
          options={[[ALL_TABS, 'all of them, one under the other'], ...file.data.sheets.map((n): Option => [n, n])]}
          onPick={(name) => void sheet.loadSheet(name)}
        />
      ) : null}
      {file.data && file.data.notes.length > 0 ? <p className="small-print">{file.data.notes.join('; ')}.</p> : null}
      <TextField
        id="i-text"
        label="or paste it here"
        as="textarea"
        rows={7}
        className="sheet"
        value={text}
        onChange={(e) => sheet.type(e.target.value)}
        onBlur={() => sheet.read({})}
      />
      <TakeKeys sheet={sheet} />
      <Trouble problem={file.error ?? preview.error ?? take.error} />
      {take.data ? (
        <p className="said" role="status">
          {take.data.isRepeat
            ? 'This very sheet was taken in before; nothing changed.'
            : `Taken in: ${counts(take.data.did)}.`}
        </p>
      ) : null}
      {preview.data ? <p className="said">{readAs(preview.data)}</p> : null}
      {preview.data ? <Asked preview={preview.data} sheet={sheet} shop={shop} /> : null}
      {preview.data && preview.data.groups.length > 0 ? (
        <Notes preview={preview.data} decisions={sheet.decisions} onDecide={sheet.decide} />
      ) : null}
      {preview.data ? <Previewed preview={preview.data} sheet={sheet} /> : null}
    </div>
  )
}

/** Read, take in, and while that runs how far it is and the way out. */
function TakeKeys({ sheet }: { sheet: ReturnType<typeof useSheet> }) {
  const { text, preview, take } = sheet
  // Read, or read anew with what was just said of a word: nothing is taken in meanwhile.
  const isReading = preview.isPending || sheet.word.isPending
  const cancel = useCancelImport()
  const progress = useProgress(sheet.runKey, take.isPending)
  const isSome = (preview.data?.bad.length ?? 0) > 0 && preview.data?.canTake
  return (
    <div className="d-flex gap-2 align-items-center flex-wrap">
      <Button disabled={!text.trim() || isReading} onClick={() => sheet.read({})}>
        Read it
      </Button>
      <Button
        variant="chalk"
        disabled={!preview.data?.canTake || isReading || take.isPending || take.isSuccess}
        onClick={sheet.takeIn}
      >
        {isSome ? `Take in the rest, leave ${preview.data?.bad.length ?? 0} out` : 'Take it in'}
      </Button>
      {take.isPending ? (
        <>
          <span role="status">
            {progress.data && progress.data.of > 0
              ? `${progress.data.stage}: ${progress.data.done} of ${progress.data.of}`
              : (progress.data?.stage ?? 'sending')}
          </span>
          <Button onClick={() => cancel.mutate(sheet.runKey)}>take nothing in</Button>
        </>
      ) : null}
    </div>
  )
}

const KINDS: readonly Option<SheetAsked>[] = [
  ['guess', 'what it looks like'],
  ['places', 'places and the parts on them'],
  ['usage', 'usage per shift or day'],
  ['history', 'past work, in your own words'],
  ['purchases', 'purchases: item, month, how many'],
  ['parts', 'parts: code, kind, family, size'],
  ['families', 'fit families: name, thread, pin'],
]
