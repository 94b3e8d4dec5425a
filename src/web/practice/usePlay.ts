import { useEffect, useState } from 'react'
import { BEAD_S } from '@core/practice/bead.ts'

const EVERY_MS = 50
/** Where a bead that plays has come to, s; null once it is over. Begun anew with each `key`; 0: nothing was played yet. */
export function usePlay(key: number): number | null {
  const [at, setAt] = useState<{ key: number; s: number | null }>({ key: 0, s: null })
  useEffect(() => {
    if (key === 0) return
    const began = performance.now()
    const timer = setInterval(() => {
      const s = (performance.now() - began) / 1000
      setAt({ key, s: s < BEAD_S ? s : null })
      if (s >= BEAD_S) clearInterval(timer)
    }, EVERY_MS)
    return () => clearInterval(timer)
  }, [key])
  // From the moment it is asked for: nobody sees what comes after it before.
  return at.key === key ? at.s : 0
}
