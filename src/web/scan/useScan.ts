import { useEffect, useRef } from 'react'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { scanAnswer } from '@contract/logbook.ts'
import { newKey, postJson } from '@web/api/client.ts'
import { keepLast } from '@web/offline/last.ts'
import { openedBy } from './opened.ts'
import { startWedge } from '@web/kit/wedge.ts'

/** A spool's own label opens it; nothing is logged. */
export function spoolIn(code: string): number | null {
  const found = /\/go\/spool\/(\d{1,7})\/?$/.exec(code)
  return found ? Number(found[1]) : null
}

/** A code goes to the server, which says what it means here; what it logged stands in the strip with its undo. */
export function useScan() {
  const client = useQueryClient()
  const go = useNavigate()
  return useMutation({
    mutationFn: (input: { code: string; key?: string }) => {
      const number = spoolIn(input.code)
      if (number !== null) {
        void go(`/spools?number=${number}`)
        return Promise.resolve(null)
      }
      return postJson('/logbook/scan', { key: input.key ?? newKey(), code: input.code }, scanAnswer)
    },
    onSuccess: (answer) => {
      if (!answer) return
      if (answer.said === 'open') return void go(openedBy(answer))
      if (answer.said === 'gunHere') return void go(`/gun/${answer.stationId}?found=${answer.hungAt?.stationId ?? ''}`)
      if (answer.said === 'logged') keepLast({ acts: answer.acts, logged: answer.logged })
      return client.invalidateQueries()
    },
  })
}

/** A scanner that types works on every screen, whatever has the focus, as long as nobody is typing in a field. */
export function useWedge(onScan: (code: string) => void): void {
  const latest = useRef(onScan)
  latest.current = onScan
  useEffect(() => startWedge((text) => latest.current(text)), [])
}
