import { queryOptions } from '@tanstack/react-query'
import { api, asked } from '../../api/client'
import type { Build, CellPlan, CellProof, Operation, ProofRound, WalkSeam } from '../../api/model'

const LOOK_MS = 1500
/** The gate that a leak test with air waits for. */
export const VAPOUR = 'vapour'

/** Readings of a test so far, looked at again while it runs. */
export const readingsQuery = (designId: number, proof: string, running: boolean) =>
  queryOptions({
    queryKey: ['leak test', designId, proof],
    refetchInterval: running ? LOOK_MS : false,
    queryFn: () =>
      asked(
        api.GET('/api/designs/{design_id}/leak-tests/{proof}', { params: { path: { design_id: designId, proof } } }),
      ),
  })

export const VERDICT_WORDS: Record<ProofRound['verdict'], string> = {
  pass: 'Tight',
  fail: 'Leaks',
  'too short': 'Too short to prove anything',
  undecided: 'Undecided',
  contradiction: 'Contradiction',
  running: 'Running',
  stopped: 'Broken off',
  'not walked': 'Not walked whole',
}

export const VERDICT_HELP: Partial<Record<ProofRound['verdict'], string>> = {
  'too short': 'The largest leak allowed would not have shown by then. Go on for longer.',
  undecided: 'The limit lies within what gauge and thermometer leave open. Go on for longer.',
  contradiction: 'Air seems to have come in, which it can’t. Look at gauge, thermometer and barometer.',
  'not walked': 'Some seams weren’t looked at from end to end.',
}

export const STANDING_WORDS: Record<CellProof['standing'], string> = {
  'not tested': 'not tested',
  running: 'running',
  failed: 'not passed',
  passed: 'passed',
  void: 'void',
}

export type Tone = 'good' | 'stop' | 'caution' | 'quiet'

export const toneOf = (verdict: ProofRound['verdict']): Tone =>
  verdict === 'pass'
    ? 'good'
    : verdict === 'fail' || verdict === 'stopped'
      ? 'stop'
      : verdict === 'running'
        ? 'quiet'
        : 'caution'

/** How long readings have to last [min], in whole minutes. */
export const leastOf = (least: CellPlan['least_min']) => Math.ceil(Math.max(least.by_gauge, least.by_uncertainty))

/** The cell that an operation of the order of work tests. */
export const cellOf = (operation: Operation): string | null =>
  operation.kind === 'prove' ? (operation.parts[0] ?? null) : null

export const planOf = (build: Build, cell: string): CellPlan | undefined =>
  build.plan?.cells.find((one) => one.cell === cell)

export const proofOf = (build: Build, cell: string): CellProof | undefined =>
  build.state.proofs.find((one) => one.cell === cell)

export const seamsOf = (build: Build, cell: string): WalkSeam[] =>
  build.walk.filter((seam) => seam.cells.includes(cell))

export const isRunning = (round: ProofRound) => round.ended === null

type Spot = { x: number; y: number; z: number }

/** The place so far along a seam [mm]. */
export function placeAlong(seam: WalkSeam, atMm: number): Spot {
  let left = atMm
  for (const line of seam.lines)
    for (const [n, end] of line.entries()) {
      const start = line[n - 1]
      if (!start) continue
      const long = Math.hypot(end.x - start.x, end.y - start.y, end.z - start.z)
      if (left <= long) {
        const share = long ? left / long : 0
        const between = (a: number, b: number) => a + share * (b - a)
        return { x: between(start.x, end.x), y: between(start.y, end.y), z: between(start.z, end.z) }
      }
      left -= long
    }
  return seam.lines.at(-1)?.at(-1) ?? { x: 0, y: 0, z: 0 }
}

/** How far along a seam it passes nearest to a place, and how near [mm]. */
export function nearestAlong(seam: WalkSeam, place: Spot): { atMm: number; offMm: number } {
  let before = 0
  let best = { atMm: 0, offMm: Infinity }
  for (const line of seam.lines)
    for (const [n, end] of line.entries()) {
      const start = line[n - 1]
      if (!start) continue
      const way = { x: end.x - start.x, y: end.y - start.y, z: end.z - start.z }
      const long = Math.hypot(way.x, way.y, way.z)
      const dot = (place.x - start.x) * way.x + (place.y - start.y) * way.y + (place.z - start.z) * way.z
      const share = long ? Math.min(1, Math.max(0, dot / long ** 2)) : 0
      const offMm = Math.hypot(
        place.x - start.x - share * way.x,
        place.y - start.y - share * way.y,
        place.z - start.z - share * way.z,
      )
      if (offMm < best.offMm) best = { atMm: before + share * long, offMm }
      before += long
    }
  return best
}
