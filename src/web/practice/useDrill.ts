import { useEffect, useMemo, useRef, useState } from 'react'
import { after, played, type DrillAct, type DrillState } from '@core/practice/drill.ts'
import { type Index } from '@core/diagnose/belief.ts'
import { type Bead } from './boothasked.ts'
import { keepDrill, type KeptDrill } from './kept.ts'
import { playWave, stopWave, warmSound } from './sound.ts'
import { type AskBooth } from './useBoothWorker.ts'

export interface Drilling {
  state: DrillState
  bead: Bead | null
  /** How often the trigger was pulled: each plays anew. */
  pulls: number
  /** The trigger is pulled and nothing is laid yet. */
  isPulling: boolean
  act: (act: DrillAct) => void
}
/** A drill being played: its state from its acts, and the last bead, heard as it is laid. */
export function useDrill(knowledge: Index, drill: KeptDrill, ask: AskBooth): Drilling {
  const { scenario } = drill
  const [acts, setActs] = useState<readonly DrillAct[]>(drill.acts)
  const [bead, setBead] = useState<Bead | null>(null)
  const [pulls, setPulls] = useState(0)
  const [isPulling, setPulling] = useState(false)
  const state = useMemo(() => played(knowledge, scenario, acts), [knowledge, scenario, acts])
  const isOpen = useRef(true)
  useEffect(() => {
    isOpen.current = true
    const leaveIt = warmSound()
    return () => {
      leaveIt()
      isOpen.current = false
      stopWave()
    }
  }, [])
  const pull = async (left: DrillState['left'], n: number, isHeard: boolean) => {
    const laid = await ask('bead', { scenario, left, n })
    if (!isOpen.current) return
    setBead(laid)
    setPulling(false)
    if (!isHeard) return
    playWave(laid.wave)
    setPulls((before) => before + 1)
  }
  // The bead of whoever complains lies there already.
  useEffect(() => void pull(state.left, 0, false), [])
  const act = (one: DrillAct) => {
    const next = [...acts, one]
    keepDrill({ ...drill, acts: next })
    setActs(next)
    // A fix ends with its closing test.
    const isTried = one.do === 'bead' || one.do === 'fix'
    setPulling(isTried)
    if (isTried) void pull(after(knowledge, { scenario, state }, one).left, next.length, true)
  }
  return { state, bead, pulls, isPulling, act }
}
