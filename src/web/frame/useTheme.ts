import { useEffect, useState } from 'react'

type Theme = 'dark' | 'light'
const KEY = 'idle-theme'
/** As `first.js` found it before anything was drawn. */
const first = (): Theme => (document.documentElement.dataset['bsTheme'] === 'light' ? 'light' : 'dark')

/** Dark for the shop, light for bright rooms; kept per device. */
export function useTheme(): [Theme, () => void] {
  const [theme, setTheme] = useState<Theme>(first)
  useEffect(() => {
    document.documentElement.dataset['bsTheme'] = theme
  }, [theme])
  const flip = () => {
    const next = theme === 'dark' ? 'light' : 'dark'
    localStorage.setItem(KEY, next)
    setTheme(next)
  }
  return [theme, flip]
}
