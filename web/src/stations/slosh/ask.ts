import type { Design } from '../../api/model'
import type { Ask } from './study'

/** What may be varied; each has a range that is kept while it is switched off. */
export interface Varied {
  on: boolean
  low: number
  high: number
  steps: number
}
export type Way =
  | 'plates_across'
  | 'plates_along'
  | 'corner_mm'
  | 'notch_mm'
  | 'door_mm'
  | 'plate_at_mm'
  | 'pot_mm'
  | 'sump_deep_mm'
  | 'surge_l'
export const WAYS: readonly Way[] = [
  'plates_across',
  'plates_along',
  'corner_mm',
  'notch_mm',
  'door_mm',
  'plate_at_mm',
  'pot_mm',
  'sump_deep_mm',
  'surge_l',
]

export interface Asking {
  down_to_l: number | null
  least: 'weld' | 'metal' | 'money'
  ways: Record<Way, Varied>
  places: { on: boolean; along: number; across: number }
}

/** What can be varied of this design: a sump's depth where there is one, a baffle's place where one is drawn. */
export const possibleWays = (design: Design) => {
  const has = (kind: string) => Boolean(design.shell?.features.some((feature) => feature.kind === kind))
  return WAYS.filter((way) => (way !== 'sump_deep_mm' || has('sump')) && (way !== 'plate_at_mm' || has('baffle')))
}
export const counted = (way: Way) => way === 'plates_across' || way === 'plates_along'

/** As it is sent. */
export function askOf({ down_to_l, least, ways, places }: Asking, usual_l: number, possible: readonly Way[]): Ask {
  const range = (way: Way) => {
    const { on, low, high, steps } = ways[way]
    if (!on || !possible.includes(way)) return null
    return counted(way) ? { low, high } : { low, high, steps }
  }
  const ranges = Object.fromEntries(WAYS.map((way) => [way, range(way)])) as Pick<Ask, Way>
  return {
    down_to_l: down_to_l ?? usual_l,
    least,
    ...ranges,
    places: places.on ? { along: places.along, across: places.across } : null,
  }
}

/** How many runs an ask makes. */
export function runsOf(ask: Ask): number {
  const counts = [ask.plates_across, ask.plates_along].map((span) =>
    span ? (span.high ?? 0) - (span.low ?? 0) + 1 : 1,
  )
  const spans = [
    ask.corner_mm,
    ask.notch_mm,
    ask.door_mm,
    ask.plate_at_mm,
    ask.pot_mm,
    ask.sump_deep_mm,
    ask.surge_l,
  ].map((span) => (span ? (span.low === span.high ? 1 : Math.max(2, span.steps ?? 3)) : 1))
  return [...counts, ...spans, ask.places ? (ask.places.along ?? 8) * (ask.places.across ?? 5) : 1].reduce(
    (a, b) => a * Math.max(0, b),
    1,
  )
}
