import { isTyping } from './typing.ts'
import { burstStep, isScanning, QUIET } from './burst.ts'

/** One listener for the page, ahead of all others; who wants a scanned code or asks whether one is being typed comes here. */
let burst = QUIET
let scans = 0
let hear: ((text: string) => void) | null = null
/** A page that knows some codes of its own is asked first. */
let claim: ((text: string) => boolean) | null = null

function onKey(event: KeyboardEvent): void {
  if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return
  const step = burstStep(burst, event.key, event.timeStamp)
  burst = step.burst
  if (step.scanned === null) return
  scans++
  // The Enter of a scan is not the focused link's.
  event.preventDefault()
  event.stopImmediatePropagation()
  if (!claim?.(step.scanned)) hear?.(step.scanned)
}

export function startWedge(onScan: (text: string) => void): () => void {
  hear = onScan
  addEventListener('keydown', onKey, true)
  return () => {
    removeEventListener('keydown', onKey, true)
    hear = null
    burst = QUIET
  }
}

/** Takes the codes it knows, as long as the page is open; the rest go their usual way. */
export function claimScans(takes: (text: string) => boolean): () => void {
  claim = takes
  return () => {
    if (claim === takes) claim = null
  }
}

/** How many codes were scanned: a key that waited while one came through was the scanner's. */
export const wedgeScans = () => scans
export const isWedgeTyping = () => isScanning(burst)
