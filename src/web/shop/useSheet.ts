import { useState } from 'react'
import {
  IMPORT_KINDS,
  type ImportKind,
  type ImportRequest,
  type NoteDecision,
  type NoteGroupLine,
} from '@contract/ingest.ts'
import { newKey } from '@web/api/client.ts'
import { usePreview, useReadFile, useTakeIn } from '@web/shopmodel/queries.ts'
import { firstDecision } from './sheetwords.ts'

type Decisions = Record<string, NoteDecision>

/** What each group of notes counts as: as first offered, or as chosen since. */
function useDecisions(groups: readonly NoteGroupLine[]) {
  const [chosen, setChosen] = useState<Decisions>({})
  const decisions: Decisions = Object.fromEntries(groups.map((g) => [g.key, chosen[g.key] ?? firstDecision(g)]))
  const decide = (key: string, as: NoteDecision) => setChosen({ ...chosen, [key]: as })
  return { decisions, decide, forget: () => setChosen({}) }
}

/** The sheet as text, whose columns are guessed or given, and what the server reads in it. */
function useSheetText(onChange: () => void) {
  const [kind, setKind] = useState<ImportKind>('places')
  const [text, setText] = useState('')
  const [columns, setColumns] = useState<Record<string, number> | undefined>()
  const preview = usePreview()
  const request = (next: Partial<ImportRequest> = {}) => ({ kind, text, ...(columns ? { columns } : {}), ...next })
  const read = (next: Partial<ImportRequest>) => {
    onChange()
    if (request(next).text.trim()) preview.mutate(request(next))
    else preview.reset()
  }
  const type = (next: string) => {
    setText(next)
    setColumns(undefined)
    preview.reset()
  }
  const choose = (value: string) => {
    const next = IMPORT_KINDS.find((k) => k === value) ?? 'places'
    setKind(next)
    setColumns(undefined)
    read({ kind: next, columns: undefined })
  }
  const remap = (key: string, index: number | null) => {
    const { [key]: _, ...rest } = preview.data?.columns ?? {}
    const next = index === null ? rest : { ...rest, [key]: index }
    setColumns(next)
    read({ columns: next })
  }
  return { kind, text, preview, request, read, type, choose, remap }
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
    sheet.read({ text, columns: undefined })
  })
  const takeIn = () => {
    const key = newKey()
    setRunKey(key)
    const said = { decisions: notes.decisions, leaveOutBad: (preview.data?.bad.length ?? 0) > 0 }
    take.mutate({
      ...sheet.request({ runKey: key }),
      ...(sheet.kind === 'history' ? said : sheet.kind === 'purchases' ? { leaveOutBad: said.leaveOutBad } : {}),
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
