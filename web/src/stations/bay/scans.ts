import { queryOptions } from '@tanstack/react-query'
import { api, asked } from '../../api/client'
import { sendFile } from '../../api/sendFile'
import type { Scan } from '../../api/model'

/** The thinned picture of a kept scan. It never changes: its fingerprint names it. */
export const scanQuery = (fingerprint: string) =>
  queryOptions({
    queryKey: ['scan', fingerprint],
    staleTime: Infinity,
    retry: false,
    queryFn: () => asked(api.GET('/api/scans/{fingerprint}', { params: { path: { fingerprint } } })),
  })

export const sendScan = (file: globalThis.File, unit: string) =>
  sendFile<Scan>(`/api/scans?unit=${unit}&name=${encodeURIComponent(file.name.slice(0, 80))}`, file)
