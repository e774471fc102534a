type Spot = readonly [number, number]

const ROUNDS = 40

/** Places moved so little that no two are nearer than a distance; those on each other go aside in their order. */
export function apart(spots: readonly Spot[], least: number): Spot[] {
  const moved: [number, number][] = spots.map(([x, y]) => [x, y])
  for (let round = 0; round < ROUNDS; round++) {
    let still = true
    moved.forEach((one, n) => {
      for (const other of moved.slice(n + 1)) {
        const [dx, dy] = [other[0] - one[0], other[1] - one[1]]
        const now = Math.hypot(dx, dy)
        if (now >= least) continue
        still = false
        const by = (least - now) / 2 + 0.01
        const [ux, uy] = now > 0.1 ? [dx / now, dy / now] : [0, 1]
        one[0] -= ux * by
        one[1] -= uy * by
        other[0] += ux * by
        other[1] += uy * by
      }
    })
    if (still) break
  }
  return moved
}
