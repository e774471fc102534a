import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, asked, type Schemas } from '../../api/client'
import type { Design, Patch } from '../../api/model'
import { useSaving } from '../../work/saving'
import { applyPatch, useWork } from '../../work/store'

export type Study = Schemas['StudyOut']
export type StudyRow = Schemas['StudyRowOut']
export type Against = Schemas['AgainstOut']
export type Ask = Schemas['Ask']

const LOOK_MS = 800

/** The latest study of a kind: asked for, watched while it runs, stopped. */
export function useStudy(kind: Study['kind']) {
  const queries = useQueryClient()
  const designId = useSaving((saving) => saving.designId)
  const design = useWork((work) => work.design)
  const latest = useQuery({
    queryKey: ['studies', designId],
    enabled: designId !== null,
    queryFn: () =>
      asked(api.GET('/api/designs/{design_id}/studies', { params: { path: { design_id: designId ?? 0 } } })),
  })
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
    mutationFn: ({ ask = null, against = [] }: { ask?: Ask | null; against?: Against[] }) =>
      asked(
        api.POST('/api/designs/{design_id}/studies', {
          params: { path: { design_id: designId ?? 0 } },
          body: {
            design: design as unknown as Record<string, unknown>,
            kind,
            ask,
            against: against.map(({ design_id, revision }) => ({ design_id, revision })),
          },
        }),
      ),
    onSuccess: shown,
  })
  const stop = useMutation({
    mutationFn: (study: Study) =>
      asked(api.POST('/api/studies/{study_id}/stop', { params: { path: { study_id: study.id } } })),
    onSuccess: shown,
  })
  const take = useMutation({
    mutationFn: (row: StudyRow) =>
      asked(
        api.GET('/api/studies/{study_id}/{number}', { params: { path: { study_id: id ?? 0, number: row.number } } }),
      ),
    onSuccess: (found) => applyPatch(found.patch as Patch),
  })
  const study = watched.data
  return { study, stale: study !== undefined && !alike(study.design, design), start, stop, take }
}

/** What this design can be compared with: earlier revisions of it, other designs of its job. */
export function useComparable() {
  const designId = useSaving((saving) => saving.designId)
  const revision = useSaving((saving) => saving.revision)
  return (
    useQuery({
      queryKey: ['comparable', designId, revision],
      enabled: designId !== null,
      queryFn: () =>
        asked(api.GET('/api/designs/{design_id}/studies/against', { params: { path: { design_id: designId ?? 0 } } })),
    }).data ?? []
  )
}

/** Money in the currency it was calculated in. */
export const moneyText = (
  units: { number: (value: number, digits: number) => string },
  money: number | null,
  currency: string,
) => (money === null ? '–' : `${units.number(money, 0)} ${currency}`.trim())

/** Whether a study's design, as it was asked with, runs like the one on the screen. */
function alike(kept: Record<string, unknown>, design: Design) {
  const now = design as unknown as Record<string, unknown>
  return ['shell', 'inside', 'ports', 'brief', 'slosh'].every((part) => text(kept[part]) === text(now[part]))
}

const text = (value: unknown) =>
  JSON.stringify(value, (_, below: unknown) =>
    below !== null && typeof below === 'object' && !Array.isArray(below)
      ? Object.fromEntries(Object.entries(below).sort(([a], [b]) => (a < b ? -1 : 1)))
      : below,
  )
