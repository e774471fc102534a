import { queryOptions } from '@tanstack/react-query'
import { api, asked } from '../api/client'

const LOOK_MS = 3000

/** How far a tank is, looked at again every few seconds: what another person ticks is seen. */
export const buildQuery = (designId: number) =>
  queryOptions({
    queryKey: ['build', designId],
    refetchInterval: LOOK_MS,
    queryFn: () => asked(api.GET('/api/designs/{design_id}/build', { params: { path: { design_id: designId } } })),
  })
