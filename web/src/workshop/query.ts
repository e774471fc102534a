import { queryOptions } from '@tanstack/react-query'
import { api, asked } from '../api/client'

/** The workshop's rules and machines. */
export const workshopQuery = queryOptions({
  queryKey: ['workshop'],
  queryFn: () => asked(api.GET('/api/workshop')),
  staleTime: 60_000,
})
