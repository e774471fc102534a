// Sizes of a design that can come out otherwise than planned: where each is kept and what people call it.
import type { Design } from '../../api/model'

export interface Size {
  /** Where it is kept: a field of the shell, a corner, a feature's or a port's by its id. */
  of: string
  name: string
  mm: number
}

type Fields = Record<string, unknown>

const SHELL: Record<string, string> = {
  length_mm: 'length',
  width_mm: 'width',
  height_mm: 'height',
  diameter_mm: 'diameter',
  run_mm: 'length along the profile',
}
const FEATURE: Record<string, string> = {
  a_mm: 'place, first way',
  b_mm: 'place, second way',
  at_mm: 'place',
  x_mm: 'place lengthwise',
  y_mm: 'place across',
  z_mm: 'place up',
  long_mm: 'length',
  wide_mm: 'width',
  length_mm: 'length',
  width_mm: 'width',
  height_mm: 'height',
  deep_mm: 'depth',
  high_mm: 'height',
  reach_mm: 'reach',
  drop_mm: 'drop',
}
const PORT: Record<string, string> = { x_mm: 'place lengthwise', y_mm: 'place across', z_mm: 'place up' }

const named = (fields: Fields, words: Record<string, string>, path: string, whose: string): Size[] =>
  Object.entries(words).flatMap(([field, word]) => {
    const mm = fields[field]
    return typeof mm === 'number' ? [{ of: `${path}.${field}`, name: whose ? `${whose}, ${word}` : word, mm }] : []
  })

/** Corners of a profile as sizes. */
export const cornerSizes = (corners: readonly object[]): Size[] =>
  corners.flatMap((corner, n) =>
    named(corner as Fields, { across_mm: 'across', up_mm: 'up' }, `shell.corners.${n}`, `corner ${n + 1}`),
  )

/** All sizes that may be typed as built. */
export function sizesOf(design: Design): Size[] {
  const shell = design.shell as Fields | null
  if (!shell) return []
  const corners = (shell.corners as Fields[] | undefined) ?? []
  return [
    ...named(shell, SHELL, 'shell', ''),
    ...cornerSizes(corners),
    ...((shell.features as Fields[] | undefined) ?? []).flatMap((feature) =>
      named(feature, FEATURE, `features.${String(feature.id)}`, String(feature.name)),
    ),
    ...design.ports.flatMap((port) => [
      ...named(port as unknown as Fields, PORT, `ports.${port.id}`, port.name),
      ...(port.seat
        ? [{ of: `ports.${port.id}.seat.hole_mm`, name: `${port.name}, hole`, mm: port.seat.hole_mm }]
        : []),
    ]),
  ]
}

/** The design with one size changed; what isn't there stays so. */
export function withSize(design: Design, of: string, mm: number): Design {
  const [root, ...way] = of.split('.')
  const copy = structuredClone(design) as unknown as Fields
  let here: unknown = root === 'features' ? (copy.shell as Fields | null)?.features : copy[root ?? '']
  for (const step of way.slice(0, -1)) {
    if (Array.isArray(here)) {
      const list = here as Fields[]
      here = list.find((one) => one.id === step) ?? (/^\d+$/.test(step) ? list[Number(step)] : undefined)
    } else here = (here as Fields | undefined)?.[step]
  }
  const last = way.at(-1)
  if (here && last && typeof (here as Fields)[last] === 'number') (here as Fields)[last] = mm
  return copy as unknown as Design
}
