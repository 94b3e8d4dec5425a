import { useQuery } from '@tanstack/react-query'
import { done } from '@contract/common.ts'
import { helpsAnswer, type helpsClosedRequest, type standingRequest } from '@contract/firsthour.ts'
import { type bayRequest, type limitsRequest } from '@contract/shop.ts'
import { getJson } from '@web/api/client.ts'
import { useWrite, type Body } from '@web/offline/write.ts'

/** What else would help a young shop; asked of a lead only. */
export const useHelps = (isLead: boolean) =>
  useQuery({ queryKey: ['helps'], queryFn: () => getJson('/shop/helps', helpsAnswer), enabled: isLead })
export const useCloseHelps = () => useWrite<Body<typeof helpsClosedRequest>, typeof done>('/shop/helps-closed', done)
export const useSaveBay = () => useWrite<Body<typeof bayRequest>, typeof done>('/shop/bay', done)
export const useSaveLimits = () => useWrite<Body<typeof limitsRequest>, typeof done>('/shop/limits', done)
export const useSaveStanding = () => useWrite<Body<typeof standingRequest>, typeof done>('/clock/standing', done)
