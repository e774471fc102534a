/** Round steps of an axis, four or so, in a unit that is so much of what is plotted. */
export function ticksOf(lowest: number, highest: number, per = 1): number[] {
  const [low, high] = [lowest / per, highest / per]
  const span = high - low || 1
  const rough = span / 4
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = ([1, 2, 5, 10].find((n) => n * power >= rough) ?? 10) * power
  const first = Math.ceil(low / step - 1e-9) * step
  return Array.from({ length: Math.floor((high - first) / step + 1e-9) + 1 }, (_, n) => (first + n * step) * per)
}
