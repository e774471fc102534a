import { type QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, asked, Failure } from '../api/client'
import type { Session } from '../api/model'

const KEY = ['session']

/** Who is signed in; null when nobody is. */
export function useSession() {
  return useQuery({
    queryKey: KEY,
    queryFn: async (): Promise<Session | null> => {
      try {
        return await asked(api.GET('/api/session'))
      } catch (error) {
        if (error instanceof Failure && error.status === 401) return null
        throw error
      }
    },
    staleTime: Infinity,
    retry: (count, error) => error instanceof Failure && error.status === 0 && count < 3,
  })
}

/** Somebody else, or nobody, is at the screen: forget all that was fetched for the last person. */
function becomes(queries: QueryClient, session: Session | null) {
  queries.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== KEY[0] })
  queries.setQueryData(KEY, session)
}

export function useSignIn() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: { username: string; password: string }) => asked(api.POST('/api/session', { body })),
    onSuccess: (session) => {
      becomes(queries, session)
    },
  })
}

export function useSignOut() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: () => asked(api.DELETE('/api/session')),
    onSuccess: () => {
      becomes(queries, null)
    },
  })
}

/** Units and theme, remembered for the person. Shown at once; put back when it can't be kept. */
export function usePreferences() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Partial<Pick<Session, 'units' | 'theme'>>) =>
      asked(api.PATCH('/api/session/preferences', { body })),
    onMutate: (body) => {
      const before = queries.getQueryData<Session | null>(KEY)
      if (before) queries.setQueryData(KEY, { ...before, ...body })
      return before
    },
    onError: (_error, _body, before) => queries.setQueryData(KEY, before),
  })
}
