import { useEffect, useRef } from 'react'
import { GAP_MS } from './burst.ts'
import { isWedgeTyping, wedgeScans } from './wedge.ts'
import { isTyping } from './typing.ts'

/**
 * Single keys, off while somebody types or holds a modifier. A scanner types letters too: a key is a shortcut only when
 * nothing follows it at a scanner's pace.
 */
export function useShortcuts(keys: Readonly<Record<string, () => void>>, isOn: boolean): void {
  const latest = useRef({ keys, isOn })
  latest.current = { keys, isOn }
  useEffect(() => {
    const waiting = new Set<ReturnType<typeof setTimeout>>()
    const onKey = (event: KeyboardEvent) => {
      if (!latest.current.isOn || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
      if (!latest.current.keys[event.key]) return
      event.preventDefault()
      const scans = wedgeScans()
      const timer = setTimeout(() => {
        waiting.delete(timer)
        if (!isWedgeTyping() && wedgeScans() === scans) latest.current.keys[event.key]?.()
      }, GAP_MS + 5)
      waiting.add(timer)
    }
    addEventListener('keydown', onKey)
    return () => {
      removeEventListener('keydown', onKey)
      waiting.forEach((timer) => clearTimeout(timer))
    }
  }, [])
}
