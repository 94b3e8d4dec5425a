import { HAND_ITEM_KEYS, handItem, wrongOf, type FoundAtBooth, type HandItemKey } from '@core/classes/items.ts'

/** "Gun in its socket: half out", as it was found. */
export function foundWords(item: HandItemKey, answer: string): string {
  const { name, right, wrong } = handItem(item)
  return `${name}: ${wrong.find((w) => w.key === answer)?.says ?? right}`
}

/** A booth as the next class found it, in a line. */
export function handedOverLine(found: FoundAtBooth, still: readonly HandItemKey[]): string {
  const wrong = wrongOf(found)
  if (wrong.length === 0) {
    const n = HAND_ITEM_KEYS.filter((k) => found[k] !== undefined).length
    return n === HAND_ITEM_KEYS.length
      ? 'Looked at before class: as it should be.'
      : `Looked at before class: ${n} of ${HAND_ITEM_KEYS.length}, as they should be.`
  }
  const said = wrong.map((k) => {
    const words = foundWords(k, found[k] ?? '')
    return `${words.charAt(0).toLowerCase()}${words.slice(1)}${still.includes(k) ? ', still so' : ''}`
  })
  return `Found before class: ${said.join('; ')}.`
}
