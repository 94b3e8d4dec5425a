import { type Column, type KindKey, type Position } from '@core/path/columns.ts'

/**
 * Act codes: what a printed code says, and what a scan of it means. A code is a path, "…/go/B7/tip-changed": a phone's own
 * camera opens it as a link, a scanner that types it is read the same, whatever host stands before "/go/".
 *
 *   /go/B7               opens the gun
 *   /go/B7/tip-changed   logs it
 *   /go/B7/before-class  opens the look before class there
 *   /go/B7/right-wrong   opens the cards of right and wrong
 *   /go/B7/x2            the last act here was two
 */
export type CodeAct = 'changed' | 'cleaned' | 'newSpool' | 'down' | 'running' | 'seen'
export interface CodedAct {
  slug: string
  act: CodeAct
  position: Position | null
  /** On the card, under the code. */
  label: string
}
interface Kind {
  key: KindKey
  name: string
  column: Column
  canClean: boolean
}

const PLAIN: readonly CodedAct[] = [
  { slug: 'new-spool', act: 'newSpool', position: null, label: 'new spool' },
  { slug: 'all-looked-at', act: 'seen', position: null, label: 'all looked at' },
  { slug: 'down', act: 'down', position: null, label: 'it is down' },
  { slug: 'running', act: 'running', position: null, label: 'running again' },
]

/** Every act a code can stand for, kind by kind. */
export function codedActs(kinds: readonly Kind[]): CodedAct[] {
  const own = kinds.flatMap((k): CodedAct[] => [
    { slug: `${k.key}-changed`, act: 'changed', position: k.key, label: `${k.name} changed` },
    ...(k.canClean
      ? [{ slug: `${k.key}-cleaned`, act: 'cleaned' as const, position: k.key, label: `${k.name} cleaned` }]
      : []),
  ])
  return [...own, ...PLAIN]
}

/** Pages of a place that a code of its own opens. */
export const CODE_PAGES = ['beforeClass', 'pairs'] as const
export type CodePage = (typeof CODE_PAGES)[number]
export const PAGE_SLUG: Record<CodePage, string> = { beforeClass: 'before-class', pairs: 'right-wrong' }

export type ReadCode =
  | { kind: 'gun'; place: string }
  | { kind: 'page'; place: string; page: CodePage }
  | { kind: 'act'; place: string; act: CodedAct }
  | { kind: 'again'; place: string; count: number }

const MOST_AGAIN = 9

/**
 * Reads a scanned or typed code; null when it is none of ours.
 * @example readCode('https://10.0.0.4:8460/go/B7/tip-changed', kinds) // { kind: 'act', place: 'B7', act: … }
 */
export function readCode(text: string, kinds: readonly Kind[]): ReadCode | null {
  const at = text.indexOf('/go/')
  if (at < 0) return null
  const [place = '', slug, ...more] = text
    .slice(at + 4)
    .replace(/[?#].*$/, '')
    .replace(/\/$/, '')
    .split('/')
    .map(decoded)
  if (place.trim() === '' || more.length > 0) return null
  if (slug === undefined) return { kind: 'gun', place: place.trim() }
  const again = /^x([2-9])$/.exec(slug)
  if (again) return { kind: 'again', place: place.trim(), count: Math.min(MOST_AGAIN, Number(again[1])) }
  const page = CODE_PAGES.find((p) => PAGE_SLUG[p] === slug.toLowerCase())
  if (page) return { kind: 'page', place: place.trim(), page }
  const act = codedActs(kinds).find((a) => a.slug === slug.toLowerCase())
  return act ? { kind: 'act', place: place.trim(), act } : null
}

function decoded(piece: string): string {
  try {
    return decodeURIComponent(piece)
  } catch {
    return piece
  }
}

/** The path of a code, to stand behind a host. @example codePath('Cell 2', 'tip-changed') // '/go/Cell%202/tip-changed' */
export const codePath = (place: string, slug?: string) => `/go/${encodeURIComponent(place)}${slug ? `/${slug}` : ''}`
