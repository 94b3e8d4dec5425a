import { useQuery } from '@tanstack/react-query'
import { done } from '@contract/common.ts'
import {
  lifeAnswer,
  previewAnswer,
  type lifeRuleRequest,
  type lifeWordRequest,
  type tryoutEndRequest,
  type tryoutRequest,
} from '@contract/life.ts'
import { getJson } from '@web/api/client.ts'
import { useWrite, type Body } from '@web/api/write.ts'

export interface LifeAsked {
  kind: string
  where: string
  by: string
  notSaid: string
}
const asked = (of: object) =>
  new URLSearchParams(
    Object.entries(of).flatMap(([k, v]) => (v === '' || v === null ? [] : [[k, String(v)]])),
  ).toString()

export const useLife = (of: LifeAsked) =>
  useQuery({
    queryKey: ['life', of],
    queryFn: () => getJson(`/life?${asked(of)}`, lifeAnswer),
    placeholderData: (last) => last,
    retry: false,
  })
export const usePreview = (of: { kind: string; classKey: string; at: number | null } | null) =>
  useQuery({
    queryKey: ['lifePreview', of],
    queryFn: () => getJson(`/life/preview?${asked({ ...of })}`, previewAnswer),
    enabled: of !== null,
  })
export const useChooseRule = () => useWrite<Body<typeof lifeRuleRequest>, typeof done>('/life/rule', done)
export const useWord = () => useWrite<Body<typeof lifeWordRequest>, typeof done>('/life/word', done)
export const useStartTryout = () => useWrite<Body<typeof tryoutRequest>, typeof done>('/life/tryout', done)
export const useEndTryout = () => useWrite<Body<typeof tryoutEndRequest>, typeof done>('/life/tryout/end', done)
