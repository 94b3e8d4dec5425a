import { useQuery } from '@tanstack/react-query'
import { findAnswer } from '@contract/gun.ts'
import { getJson } from '@web/api/client.ts'

/** Every place of the shop by name; asked once and kept for half a minute. */
export const usePlaces = (isWanted = true) =>
  useQuery({
    queryKey: ['find'],
    queryFn: () => getJson('/find', findAnswer),
    enabled: isWanted,
    staleTime: 30_000,
  })
