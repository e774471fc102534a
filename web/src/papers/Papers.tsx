import { useQuery } from '@tanstack/react-query'
import { api, asked } from '../api/client'
import { useSaving } from '../work/saving'
import { Downloads } from './Downloads'

/** All files that can be had of a design's saved revision, by station. */
export const papersQuery = (designId: number, revision: number) => ({
  queryKey: ['papers', designId, revision],
  queryFn: () => asked(api.GET('/api/designs/{design_id}/papers', { params: { path: { design_id: designId } } })),
})

/** The files of a station, as the core lists them. */
export function Papers({
  station,
  only = () => true,
  query = '',
  compact = false,
}: {
  station: string
  only?: (name: string) => boolean
  query?: string
  compact?: boolean
}) {
  const designId = useSaving((saving) => saving.designId)
  const revision = useSaving((saving) => saving.revision)
  const listed = useQuery({
    ...papersQuery(designId ?? 0, revision),
    enabled: designId !== null,
    placeholderData: (before) => before,
  })
  const files = (listed.data ?? []).filter((paper) => paper.station === station && only(paper.name))
  return (
    <Downloads
      compact={compact}
      files={files.map((paper) => ({ name: `${paper.name}${query}`, label: paper.title }))}
    />
  )
}
