import { useState } from 'react'
import {
  IMPORT_KINDS,
  type ImportRequest,
  type NoteDecision,
  type NoteGroupLine,
  type PreviewRequest,
} from '@contract/ingest.ts'
import { newKey } from '@web/api/client.ts'
import { usePreview, useReadFile, useSave, useTakeIn } from '@web/shopmodel/queries.ts'
import { firstDecision } from './sheetwords.ts'

/** What a sheet is said to hold; `guess` until somebody says. */
export type SheetAsked = PreviewRequest['kind']
type Decisions = Record<string, NoteDecision>

/** What each group of notes counts as: as first offered, or as chosen since. */
function useDecisions(groups: readonly NoteGroupLine[]) {
  const [chosen, setChosen] = useState<Decisions>({})
  const decisions: Decisions = Object.fromEntries(groups.map((g) => [g.key, chosen[g.key] ?? firstDecision(g)]))
  const decide = (key: string, as: NoteDecision) => setChosen({ ...chosen, [key]: as })
  return { decisions, decide, forget: () => setChosen({}) }
}

type Said = Pick<ImportRequest, 'columns' | 'fill' | 'names'>
const NOTHING_SAID: Said = {}

/** What a sheet is taken for: by its looks, as chosen, or as it was when something more was said of it. */
function useKind() {
  const [chosen, setChosen] = useState<SheetAsked>('guess')
  const [pinned, pin] = useState<SheetAsked | null>(null)
  return { chosen, setChosen, pin, asked: pinned ?? chosen }
}

/** What a word of the shop's means; the sheet is read again with it. */
function useWords(onSaid: () => void) {
  const word = useSave('/ingest/word')
  const explain = (said: string, kindKey: string | null) => word.mutate({ word: said, kindKey }, { onSuccess: onSaid })
  return { word, explain }
}

/** The sheet as text, and what the server reads in it: what it holds and its columns are guessed until they are said. */
function useSheetText(onChange: () => void) {
  const { chosen, setChosen, pin, asked } = useKind()
  const [text, setText] = useState('')
  const [said, setSaid] = useState<Said>(NOTHING_SAID)
  const preview = usePreview()
  const kind: SheetAsked = asked === 'guess' ? (preview.data?.kind ?? 'guess') : asked
  const read = (next: Partial<PreviewRequest>) => {
    onChange()
    const wanted = { kind: asked, text, ...said, ...next }
    if (wanted.text.trim()) preview.mutate(wanted)
    else preview.reset()
  }
  /** Something more is said of the sheet, and it is read again with it. */
  const say = (more: Said) => {
    const next = { ...said, ...more }
    setSaid(next)
    pin(kind)
    read({ kind, ...next })
  }
  const type = (next: string) => {
    setText(next)
    setSaid(NOTHING_SAID)
    pin(null)
    preview.reset()
  }
  const choose = (value: string) => {
    const next = IMPORT_KINDS.find((k) => k === value) ?? 'guess'
    setChosen(next)
    pin(null)
    setSaid(NOTHING_SAID)
    read({ kind: next, columns: undefined, fill: undefined, names: undefined })
  }
  const remap = (key: string, index: number | null) => {
    // A column that only stands for what was said of every row is not in the sheet.
    const own = Object.entries(preview.data?.columns ?? {}).filter(([k]) => k !== key && !said.fill?.[k])
    say({ columns: { ...Object.fromEntries(own), ...(index === null ? {} : { [key]: index }) } })
  }
  const fill = (key: string, value: string) => say({ fill: { ...said.fill, [key]: value } })
  const { word, explain } = useWords(() => read({ kind }))
  const name = (written: string, stationId: string) => say({ names: { ...said.names, [written]: stationId } })
  return { kind, chosen, text, said, preview, read, type, choose, remap, fill, name, word, explain }
}

/** The file at hand, read by the server into text; of a workbook the sheet that is asked for. */
function useSheetFile(onText: (text: string) => void) {
  const file = useReadFile()
  const [held, hold] = useState<File | undefined>()
  const load = async (given: File | undefined, sheetName?: string) => {
    hold(given)
    const asked = given && { file: given, ...(sheetName ? { sheet: sheetName } : {}) }
    const loaded = asked ? await file.mutateAsync(asked).catch(() => null) : null
    if (loaded) onText(loaded.text)
  }
  return { file, load, loadSheet: (name: string) => load(held, name) }
}

/** The sheet at hand: its text or file, what its notes count as, and taking it in. */
export function useSheet() {
  const take = useTakeIn()
  const [runKey, setRunKey] = useState(newKey)
  const sheet = useSheetText(() => take.reset())
  const { preview } = sheet
  const notes = useDecisions(preview.data?.groups ?? [])
  const { file, load, loadSheet } = useSheetFile((text) => {
    sheet.type(text)
    notes.forget()
    sheet.read({ kind: sheet.chosen, text, columns: undefined, fill: undefined, names: undefined })
  })
  const takeIn = () => {
    if (sheet.kind === 'guess') return
    const key = newKey()
    setRunKey(key)
    const leaveOutBad = (preview.data?.bad.length ?? 0) > 0
    take.mutate({
      kind: sheet.kind,
      text: sheet.text,
      ...sheet.said,
      runKey: key,
      ...(sheet.kind === 'history' ? { decisions: notes.decisions, leaveOutBad } : leaveOutBad ? { leaveOutBad } : {}),
    })
  }
  const decide = (key: string, as: NoteDecision) => {
    take.reset()
    notes.decide(key, as)
  }
  return {
    ...sheet,
    take,
    file,
    runKey,
    decisions: notes.decisions,
    load,
    loadSheet,
    decide,
    takeIn,
  }
}
