import { useQuery } from '@tanstack/react-query'
import {
  type benchRequest,
  cellsAnswer,
  type crashRequest,
  type neckRequest,
  type neckSwapRequest,
  type roundRequest,
} from '@contract/cell.ts'
import { done } from '@contract/common.ts'
import { getJson } from '@web/api/client.ts'
import { useBoothWrite, useWrite, type Body } from '@web/offline/write.ts'

export const useCells = () =>
  useQuery({ queryKey: ['cells'], queryFn: () => getJson('/cells', cellsAnswer), refetchInterval: 60_000 })

export const useNeckSwap = () =>
  useBoothWrite<typeof neckSwapRequest, typeof done>({
    path: '/cells/swap',
    answer: done,
    says: () => 'Another neck on a robot',
  })
export const useCrash = () =>
  useBoothWrite<typeof crashRequest, typeof done>({
    path: '/cells/crash',
    answer: done,
    says: () => 'A torch that hit something',
  })
export const useBench = () => useWrite<Body<typeof benchRequest>, typeof done>('/cells/bench', done)
export const useGoRound = () => useWrite<Body<typeof roundRequest>, typeof done>('/cells/round', done)
export const useMakeNeck = () => useWrite<Body<typeof neckRequest>, typeof done>('/cells/neck', done)
