import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, asked } from '../../api/client'
import type { Design, WaySearch } from '../../api/model'
import { useSaving } from '../../work/saving'
import { useWork } from '../../work/store'

const LOOK_MS = 600
const PARTS = ['shell', 'bay', 'ports', 'sheet', 'inside'] as const
const MOUNT_PARTS = ['vehicle', 'corner', 'stops', 'bearers', 'feet'] as const

/** The latest search for the way in: asked for, watched while it runs, stopped. */
export function useWaySearch() {
  const queries = useQueryClient()
  const designId = useSaving((saving) => saving.designId)
  const design = useWork((work) => work.design)
  const key = ['way-in', designId]
  const latest = useQuery({
    queryKey: key,
    enabled: designId !== null,
    queryFn: () =>
      asked(api.GET('/api/designs/{design_id}/way-in', { params: { path: { design_id: designId ?? 0 } } })),
    refetchInterval: (query) => (query.state.data?.state === 'running' ? LOOK_MS : false),
  })
  const shown = (search: WaySearch) => queries.setQueryData(key, search)
  const start = useMutation({
    mutationFn: (play_mm: number) =>
      asked(
        api.POST('/api/designs/{design_id}/way-in', {
          params: { path: { design_id: designId ?? 0 } },
          body: { design: design as unknown as Record<string, unknown>, play_mm },
        }),
      ),
    onSuccess: shown,
  })
  const stop = useMutation({
    mutationFn: (search: WaySearch) =>
      asked(api.POST('/api/way-in/{search_id}/stop', { params: { path: { search_id: search.id } } })),
    onSuccess: shown,
  })
  const search = latest.data ?? null
  const stale = search !== null && (search.vehicle_changed || !alike(search.design as unknown as Design, design))
  return { search, stale, start, stop }
}

/** Whether what was searched is what is on the screen. */
const alike = (kept: Design, now: Design) =>
  PARTS.every((part) => sorted(kept[part]) === sorted(now[part])) &&
  MOUNT_PARTS.every((part) => sorted(kept.mount[part]) === sorted(now.mount[part]))

const sorted = (value: unknown) =>
  JSON.stringify(value, (_, below: unknown) =>
    below !== null && typeof below === 'object' && !Array.isArray(below)
      ? Object.fromEntries(Object.entries(below).sort(([a], [b]) => (a < b ? -1 : 1)))
      : below,
  )
