import type { Axis, Design, Evaluation } from '../../api/model'

/** Everything of the wiring that has to be on the sheet. */
export function reachOf(design: Design, evaluation: Evaluation | null): Record<Axis, number>[] {
  const corners = design.wiring.wires.flatMap((wire) =>
    wire.corners.map(({ x_mm, y_mm, z_mm }) => ({ x: x_mm, y: y_mm, z: z_mm })),
  )
  const used = new Set(design.wiring.devices.map((device) => device.id))
  const joined = evaluation?.wiring?.runs?.joined.filter((one) => one.of !== 'device' || used.has(one.id)) ?? []
  return [...joined.map((one) => one.at), ...corners]
}
