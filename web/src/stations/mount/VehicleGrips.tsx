import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Axis, Vehicle, VehicleShown } from '../../api/model'
import type { Placed } from '../../drawing/layout'
import { MoveBody } from '../../drawing/MoveBody'
import { useWork } from '../../work/store'
import { useVehicles } from './useVehicles'

type Place = Record<Axis, number>

/** The vehicle's part at hand, to be dragged; it is kept for all jobs when it is let go. */
export function VehicleGrips({ view, shown, live }: { view: Placed; shown: VehicleShown; live: boolean }) {
  const { inks } = useTheme()
  const { own, change } = useVehicles()
  const at = useWork((work) => (work.at?.kind === 'mount' ? work.at.id : null))
  const [moved, setMoved] = useState<Partial<Place> | null>(null)
  const part = shown.parts.find((one) => one.id === at)
  if (!part || !own) return null
  const done = (keep: boolean) => {
    const by = (axis: Axis) => (moved?.[axis] === undefined ? 0 : moved[axis] - part.low[axis])
    if (keep && moved) change.mutate((vehicle) => shifted(vehicle, part.id, { x: by('x'), y: by('y'), z: by('z') }))
    setMoved(null)
  }
  const low: Place = { ...part.low, ...moved }
  const size = (axis: Axis) => part.high[axis] - part.low[axis]
  const rect = {
    x: view.toX(low[view.across]),
    y: view.toY(low[view.up] + size(view.up)),
    width: Math.max(3, size(view.across) * view.scale),
    height: Math.max(3, size(view.up) * view.scale),
  }
  return (
    <g>
      <rect {...rect} fill={inks.hand} fillOpacity={0.12} stroke={inks.hand} strokeWidth={1.6} pointerEvents="none" />
      {live && (
        <MoveBody
          view={view}
          rect={rect}
          label={part.name}
          place={part.low}
          snapsFor={() => []}
          onDone={done}
          onMove={(place) => setMoved((before) => ({ ...before, ...place }))}
        />
      )}
    </g>
  )
}

/** A vehicle with one of its panels or parts moved. */
function shifted(vehicle: Vehicle, id: string, by: Place): Vehicle {
  const along = { x: ['y', 'z'], y: ['x', 'z'], z: ['x', 'y'] } as const
  return {
    ...vehicle,
    panels: vehicle.panels.map((panel) => {
      if (panel.id !== id) return panel
      const [a, b] = along[panel.axis]
      const gaps = panel.gaps.map((gap) => ({ ...gap, a_mm: gap.a_mm + by[a], b_mm: gap.b_mm + by[b] }))
      return { ...panel, at_mm: panel.at_mm + by[panel.axis], a_mm: panel.a_mm + by[a], b_mm: panel.b_mm + by[b], gaps }
    }),
    parts: vehicle.parts.map((part) =>
      part.id === id ? { ...part, x_mm: part.x_mm + by.x, y_mm: part.y_mm + by.y, z_mm: part.z_mm + by.z } : part,
    ),
  }
}
