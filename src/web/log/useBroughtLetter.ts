import { useEffect, useRef } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { isLetter, type Letter } from './letters.ts'

/** A letter pressed on Floor comes along with the way to the gun; it is pressed once, and not again on going back. */
export function useBroughtLetter(isReady: boolean, press: (letter: Letter) => void): void {
  const { state, pathname } = useLocation()
  const go = useNavigate()
  const pressed = useRef(press)
  pressed.current = press
  const letter: unknown = typeof state === 'object' && state !== null && 'letter' in state ? state.letter : null
  useEffect(() => {
    if (!isReady || !isLetter(letter)) return
    void go(pathname, { replace: true, state: null })
    pressed.current(letter)
  }, [isReady, letter, go, pathname])
}
