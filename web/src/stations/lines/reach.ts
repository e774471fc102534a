import type { Axis, Design, Evaluation } from '../../api/model'

/** Everything of the line that has to be on the sheet. */
export function reachOf(design: Design, evaluation: Evaluation | null): Record<Axis, number>[] {
  const at = ({ x_mm, y_mm, z_mm }: { x_mm: number; y_mm: number; z_mm: number }) => ({ x: x_mm, y: y_mm, z: z_mm })
  const parts = design.lines.parts.map(at)
  const corners = design.lines.runs.flatMap((run) => run.corners.map(at))
  const ends = evaluation?.lines?.places?.connections.map((one) => one.at) ?? []
  return [...parts, ...corners, ...ends]
}
