import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, asked } from '../../api/client'
import type { KeptVehicle, Vehicle } from '../../api/model'
import { useWork, vehicleChanged } from '../../work/store'

const vehiclesQuery = queryOptions({
  queryKey: ['vehicles'],
  queryFn: () => asked(api.GET('/api/vehicles')),
})

/** The workshop's vehicles, the one that this design is for, and what changes it for all its jobs. */
export function useVehicles() {
  const queries = useQueryClient()
  const key = useWork((work) => work.design.mount.vehicle ?? null)
  const listed = useQuery(vehiclesQuery).data ?? []
  const kept = (vehicle: KeptVehicle) => {
    queries.setQueryData(vehiclesQuery.queryKey, (before) =>
      before?.some((one) => one.id === vehicle.id)
        ? before.map((one) => (one.id === vehicle.id ? vehicle : one))
        : [...(before ?? []), vehicle],
    )
    vehicleChanged()
  }
  const add = useMutation({
    mutationFn: (vehicle: Vehicle) =>
      asked(api.POST('/api/vehicles', { body: { vehicle: vehicle as unknown as Record<string, unknown> } })),
    onSuccess: kept,
  })
  // One after the other, each on what the one before left: quick typing makes no conflict with itself.
  const change = useMutation({
    scope: { id: `vehicle ${key ?? ''}` },
    mutationFn: (make: (vehicle: Vehicle) => Vehicle) => {
      const now = queries.getQueryData(vehiclesQuery.queryKey)?.find((one) => one.key === key)
      if (!now) throw new Error('This vehicle is gone.')
      return asked(
        api.PUT('/api/vehicles/{vehicle_id}', {
          params: { path: { vehicle_id: now.id } },
          body: { base_version: now.version, vehicle: make(now.vehicle) as unknown as Record<string, unknown> },
        }),
      )
    },
    onSuccess: kept,
    onError: () => queries.invalidateQueries({ queryKey: vehiclesQuery.queryKey }),
  })
  const remove = useMutation({
    mutationFn: (id: number) =>
      asked(api.DELETE('/api/vehicles/{vehicle_id}', { params: { path: { vehicle_id: id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: vehiclesQuery.queryKey }),
  })
  return { listed, own: listed.find((one) => one.key === key) ?? null, add, change, remove }
}
