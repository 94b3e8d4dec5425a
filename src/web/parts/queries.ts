import { useQuery } from '@tanstack/react-query'
import { supplyAnswer } from '@contract/parts.ts'
import { getJson } from '@web/api/client.ts'

export const useSupply = (isWanted: boolean) =>
  useQuery({ queryKey: ['supply'], queryFn: () => getJson('/parts/supply', supplyAnswer), enabled: isWanted })
