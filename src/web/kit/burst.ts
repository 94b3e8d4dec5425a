/**
 * Tells a scanner from fingers: a scanner types a whole code in a few hundredths of a second and ends with Enter.
 *
 *   quiet ──key──> one key ──key within 80 ms──> burst ──Enter──> scanned
 *          <──80 ms without a key──
 *
 * 1. A single key is fingers, once nothing follows it for 80 ms: shortcuts wait that long.
 * 2. Keys of a burst are nobody's shortcuts.
 */
export interface Burst {
  text: string
  lastMs: number
}
export const QUIET: Burst = { text: '', lastMs: -Infinity }
export const GAP_MS = 80
const LEAST = 4

export function burstStep(burst: Burst, key: string, atMs: number): { burst: Burst; scanned: string | null } {
  const isOn = atMs - burst.lastMs <= GAP_MS
  if (key === 'Enter') return { burst: QUIET, scanned: isOn && burst.text.length >= LEAST ? burst.text : null }
  if (key.length !== 1) return { burst: isOn ? { ...burst, lastMs: atMs } : QUIET, scanned: null }
  return { burst: { text: isOn ? burst.text + key : key, lastMs: atMs }, scanned: null }
}

/** More than one key so far: a scanner at work. */
export const isScanning = (burst: Burst) => burst.text.length > 1
