import { useEffect, useState } from 'react'

type Theme = 'dark' | 'light'
const KEY = 'idle-theme'
const first = (): Theme => {
  const kept = localStorage.getItem(KEY)
  if (kept === 'dark' || kept === 'light') return kept
  return matchMedia('(prefers-color-scheme: light)').matches ? 'light' : 'dark'
}

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
