import { useEffect } from 'react'
import { useNavigate } from 'react-router'
import { LETTERS } from '@web/log/letters.ts'
import { isTyping } from '@web/kit/typing.ts'
import { useShortcuts } from '@web/kit/useShortcuts.ts'

/** Guns in the order they stand on the page: opened rows, then strands. */
const GUN_LINKS = '.row-name, .strand-links a, .column-view a'

/** The gun that an arrow leads to from the one that has the focus; the first when none has. */
export function nextIndex(at: number, count: number, step: 1 | -1): number {
  if (count === 0) return -1
  return at < 0 ? (step === 1 ? 0 : count - 1) : Math.min(count - 1, Math.max(0, at + step))
}

/** Arrows move over the guns; Enter, being a link's own key, opens the one that has the focus. */
export function useArrows(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : null
      if (step === null || isTyping(event.target) || document.querySelector('[role="dialog"]')) return
      const links = [...document.querySelectorAll<HTMLElement>(GUN_LINKS)]
      const next =
        links[
          nextIndex(
            links.findIndex((l) => l === document.activeElement),
            links.length,
            step,
          )
        ]
      if (!next) return
      event.preventDefault()
      next.focus()
      next.scrollIntoView({ block: 'nearest' })
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [])
}

/** T, N, S, D on the gun that has the focus: its page opens with that act begun. */
export function useFloorLetters(): void {
  const go = useNavigate()
  const press = (letter: string) => {
    const at = document.activeElement
    if (at instanceof HTMLAnchorElement && at.matches(GUN_LINKS)) void go(at.pathname, { state: { letter } })
  }
  useShortcuts(Object.fromEntries(LETTERS.map((letter) => [letter, () => press(letter)])), true)
}
