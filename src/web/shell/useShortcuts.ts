import { useEffect } from 'react'

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))

/** Single keys, off while somebody types or holds a modifier. */
export function useShortcuts(keys: Readonly<Record<string, () => void>>, isOn: boolean): void {
  useEffect(() => {
    if (!isOn) return
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
      const act = keys[event.key]
      if (!act) return
      event.preventDefault()
      act()
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [keys, isOn])
}
