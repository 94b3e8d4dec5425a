import { useSyncExternalStore } from 'react'

const narrow = matchMedia('(max-width: 760px)')
const subscribe = (watch: () => void) => {
  narrow.addEventListener('change', watch)
  return () => narrow.removeEventListener('change', watch)
}
export const useIsPhone = () =>
  useSyncExternalStore(
    subscribe,
    () => narrow.matches,
    () => false,
  )
