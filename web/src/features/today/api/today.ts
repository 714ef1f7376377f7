import { useQuery } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask } from '../../../shared/api'

export type TitleCount = Api['TitleCount']

export function useToday() {
  return useQuery({ queryKey: ['today'], queryFn: () => ask<Api['Today']>('GET', '/api/today') })
}
