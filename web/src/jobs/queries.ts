import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { api, asked, type Schemas } from '../api/client'

export type Job = Schemas['JobOut']
export type JobIn = Schemas['JobIn']
export type Customer = Schemas['CustomerOut']
export type JobState = Job['state']

export interface JobFilter {
  search: string
  state: JobState | ''
  customer: number | null
  page: number
}

export const jobsQuery = (filter: JobFilter) =>
  queryOptions({
    queryKey: ['jobs', filter],
    placeholderData: (before: Schemas['JobPage'] | undefined) => before,
    queryFn: () =>
      asked(
        api.GET('/api/jobs', {
          params: {
            query: {
              search: filter.search,
              page: filter.page,
              ...(filter.state ? { state: filter.state } : {}),
              ...(filter.customer ? { customer_id: filter.customer } : {}),
            },
          },
        }),
      ),
  })

export const customersQuery = queryOptions({ queryKey: ['customers'], queryFn: () => asked(api.GET('/api/customers')) })

/** A change to jobs or customers: the lists are fetched again afterwards. */
export function useJobChange<In, Out>(make: (input: In) => Promise<Out>) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: make,
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ['jobs'] })
      void queries.invalidateQueries({ queryKey: ['customers'] })
    },
  })
}

export const addCustomer = (body: Schemas['CustomerIn']) => asked(api.POST('/api/customers', { body }))

export const addDesign = (jobId: number, name: string, design: Record<string, unknown> | null) =>
  asked(api.POST('/api/jobs/{job_id}/designs', { params: { path: { job_id: jobId } }, body: { name, design } }))

export const jobQuery = (number: number) =>
  queryOptions({
    queryKey: ['jobs', 'numbered', number],
    queryFn: () => asked(api.GET('/api/jobs/numbered/{number}', { params: { path: { number } } })),
  })

export const timelineQuery = (number: number) =>
  queryOptions({
    queryKey: ['jobs', 'timeline', number],
    queryFn: () => asked(api.GET('/api/jobs/numbered/{number}/timeline', { params: { path: { number } } })),
  })

export const standingQuery = (designId: number, revision: number) =>
  queryOptions({
    queryKey: ['standing', designId, revision],
    queryFn: () => asked(api.GET('/api/designs/{design_id}/standing', { params: { path: { design_id: designId } } })),
  })
