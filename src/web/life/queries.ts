import { useQuery } from '@tanstack/react-query'
import { type LinerTerms } from '@core/liner/clauses.ts'
import { done } from '@contract/common.ts'
import {
  lifeAnswer,
  previewAnswer,
  signsAnswer,
  type lifeRuleRequest,
  type lifeWordRequest,
  type tryoutEndRequest,
  type tryoutRequest,
} from '@contract/life.ts'
import { getJson } from '@web/api/client.ts'
import { useWrite, type Body } from '@web/offline/write.ts'

export interface LifeAsked {
  kind: string
  where: string
  by: string
  notSaid: string
  unsure: string
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
/** The liner's rule by signs under other terms. */
export const useSigns = (of: { where: string; terms: LinerTerms } | null) =>
  useQuery({
    queryKey: ['lifeSigns', of],
    queryFn: () => getJson(`/life/signs?${asked({ where: of?.where ?? '', ...termsAsked(of?.terms) })}`, signsAnswer),
    enabled: of !== null,
    placeholderData: (last) => last,
  })
const termsAsked = (terms: LinerTerms | undefined) => (terms ? { ...terms, on: terms.on.join(',') || ',' } : {})

type PreviewAsked = { kind: string; classKey: string; at: number | null; school?: string } & Partial<LinerTerms>
export const usePreview = (of: PreviewAsked | null) =>
  useQuery({
    queryKey: ['lifePreview', of],
    queryFn: () =>
      getJson(`/life/preview?${asked({ ...of, ...(of?.on ? { on: of.on.join(',') || ',' } : {}) })}`, previewAnswer),
    enabled: of !== null,
  })
export const useChooseRule = () => useWrite<Body<typeof lifeRuleRequest>, typeof done>('/life/rule', done)
export const useWord = () => useWrite<Body<typeof lifeWordRequest>, typeof done>('/life/word', done)
export const useStartTryout = () => useWrite<Body<typeof tryoutRequest>, typeof done>('/life/tryout', done)
export const useEndTryout = () => useWrite<Body<typeof tryoutEndRequest>, typeof done>('/life/tryout/end', done)
