import { queryOptions } from '@tanstack/react-query'
import { create } from 'zustand'
import { api, asked } from '../../api/client'

/** Which calibration lies on the bench. */
export const useOnBench = create<{ id: number | null }>(() => ({ id: null }))

export const calibrationsQuery = (designId: number) =>
  queryOptions({
    queryKey: ['calibrations', designId],
    queryFn: () =>
      asked(api.GET('/api/designs/{design_id}/calibrations', { params: { path: { design_id: designId } } })),
  })

const POURING_MS = 400
const WAITING_MS = 3000

/** One calibration: asked for often while a pour runs, now and then while it is open, since an instrument may send. */
export const calibrationQuery = (id: number) =>
  queryOptions({
    queryKey: ['calibration', id],
    queryFn: () => asked(api.GET('/api/calibrations/{calibration_id}', { params: { path: { calibration_id: id } } })),
    refetchInterval: ({ state }) => (state.data?.live ? POURING_MS : state.data?.closed ? false : WAITING_MS),
  })
