import { useSearchParams } from 'react-router'

/** What a page is asked about stands in its address: read by name ('' where it is not there), and put; an empty value takes it out. */
export function useAddress(): {
  get: (name: string) => string
  /** Several at once; in place of the page that is there, unless it is a step to go back from. */
  put: (change: Record<string, string | null>, at?: { isStep?: boolean }) => void
} {
  const [params, setParams] = useSearchParams()
  return {
    get: (name) => params.get(name) ?? '',
    put: (change, at) => {
      const next = new URLSearchParams(params)
      for (const [name, value] of Object.entries(change)) {
        if (value) next.set(name, value)
        else next.delete(name)
      }
      setParams(next, { replace: at?.isStep !== true })
    },
  }
}
