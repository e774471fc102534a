import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, asked, type Schemas } from '../../api/client'
import type { Design, Patch } from '../../api/model'
import { useSaving } from '../../work/saving'
import { applyPatch, useWork } from '../../work/store'

export type Study = Schemas['StudyOut']
export type StudyRow = Schemas['StudyRowOut']
export type Ask = Schemas['Ask']

const LOOK_MS = 800

/** The latest study of a kind: asked for, watched while it runs, stopped. */
export function useStudy(kind: Study['kind']) {
  const queries = useQueryClient()
  const designId = useSaving((saving) => saving.designId)
  const design = useWork((work) => work.design)
  const latest = useQuery({ queryKey: ['studies', designId], enabled: designId !== null, queryFn: () => asked(api.GET('/api/designs/{design_id}/studies', { params: { path: { design_id: designId ?? 0 } } })) })
  const id = latest.data?.find((study) => study.kind === kind)?.id
  const watched = useQuery({
    queryKey: ['study', id],
    enabled: id !== undefined,
    queryFn: () => asked(api.GET('/api/studies/{study_id}', { params: { path: { study_id: id ?? 0 } } })),
    refetchInterval: (query) => (query.state.data?.state === 'running' ? LOOK_MS : false),
  })
  const shown = (study: Study) => {
    queries.setQueryData(['study', study.id], study)
    return queries.invalidateQueries({ queryKey: ['studies', designId] })
  }
  const start = useMutation({
    mutationFn: (ask: Ask | null) => asked(api.POST('/api/designs/{design_id}/studies', { params: { path: { design_id: designId ?? 0 } }, body: { design: design as unknown as Record<string, unknown>, kind, ask } })),
    onSuccess: shown,
  })
  const stop = useMutation({ mutationFn: (study: Study) => asked(api.POST('/api/studies/{study_id}/stop', { params: { path: { study_id: study.id } } })), onSuccess: shown })
  const take = useMutation({
    mutationFn: (row: StudyRow) => asked(api.GET('/api/studies/{study_id}/{number}', { params: { path: { study_id: id ?? 0, number: row.number } } })),
    onSuccess: (found) => applyPatch(found.patch as Patch),
  })
  const study = watched.data
  return { study, stale: study !== undefined && !alike(study.design, design), start, stop, take }
}

/** Whether a study's design, as it was asked with, runs like the one on the screen. */
function alike(kept: Record<string, unknown>, design: Design) {
  const now = design as unknown as Record<string, unknown>
  return ['shell', 'inside', 'ports', 'brief', 'slosh'].every((part) => text(kept[part]) === text(now[part]))
}

const text = (value: unknown) => JSON.stringify(value, (_, below: unknown) => (below !== null && typeof below === 'object' && !Array.isArray(below) ? Object.fromEntries(Object.entries(below).sort(([a], [b]) => (a < b ? -1 : 1))) : below))
