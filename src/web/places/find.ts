import { type KindKey } from '@core/path/columns.ts'
import { type FindAnswer } from '@contract/gun.ts'

type Place = FindAnswer['places'][number]
const norm = (text: string) => text.toLowerCase().replace(/[\s-]+/g, '')

/** Places for a few letters: the painted name first, then names that begin so, then guns and areas that hold it. */
export function matchPlaces(places: readonly Place[], typed: string): Place[] {
  const wanted = norm(typed)
  if (!wanted) return [...places]
  const rank = (p: Place) => {
    const name = norm(p.name)
    if (name === wanted) return 0
    if (name.startsWith(wanted)) return 1
    if (name.includes(wanted) || norm(p.gunName ?? '').includes(wanted)) return 2
    return norm(`${p.areaName} ${p.placeWord}`).includes(wanted) ? 3 : 9
  }
  return places
    .map((p, i) => ({ p, i, r: rank(p) }))
    .filter((x) => x.r < 9)
    .sort((a, b) => a.r - b.r || a.i - b.i)
    .map((x) => x.p)
}

const FEWEST_LETTERS = 2
/** Kinds of parts that go by a word that begins so: "shroud" finds the nozzle, in every shop's own words. */
export function matchKinds<K extends { name: string; words: readonly string[] }>(
  kinds: readonly K[],
  typed: string,
): K[] {
  const wanted = norm(typed)
  if (wanted.length < FEWEST_LETTERS) return []
  return kinds.filter((k) => [k.name, ...k.words].some((word) => norm(word).startsWith(wanted)))
}

/** Parts by any word of their kind, their number or name: "shroud" finds every nozzle on the shelf. */
export function partsCalled<P extends { code: string; name: string; kindKey: KindKey }>(
  parts: readonly P[],
  kinds: readonly { key: KindKey; name: string; synonyms: readonly string[] }[],
  typed: string,
): P[] {
  const wanted = norm(typed)
  if (!wanted) return [...parts]
  const named = matchKinds(
    kinds.map(({ key, name, synonyms }) => ({ key, name, words: synonyms })),
    typed,
  ).map((k) => k.key)
  return parts.filter((p) => named.includes(p.kindKey) || norm(`${p.code} ${p.name}`).includes(wanted))
}
