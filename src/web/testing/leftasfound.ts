import { afterAll, vi } from 'vitest'

/** Test files of a worker share its modules and, where they have one, its made-up browser: each leaves them as it found them. */
afterAll(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
  vi.restoreAllMocks()
  if (typeof document === 'undefined') return
  document.body.replaceChildren()
  localStorage.clear()
  sessionStorage.clear()
  history.replaceState(null, '', '/')
})
