import { create } from 'zustand'
import type { Asking, Varied, Way } from './ask'

/** What is being asked, kept while one looks elsewhere. */
export const useAsk = create<Asking>(() => ({
  down_to_l: null,
  least: 'weld',
  ways: {
    plates_across: { on: true, low: 0, high: 3, steps: 1 },
    plates_along: { on: true, low: 0, high: 1, steps: 1 },
    corner_mm: { on: false, low: 20, high: 60, steps: 3 },
    notch_mm: { on: false, low: 0, high: 60, steps: 3 },
    door_mm: { on: false, low: 0, high: 100, steps: 2 },
    plate_at_mm: { on: false, low: 100, high: 400, steps: 4 },
    pot_mm: { on: false, low: 0, high: 160, steps: 3 },
    sump_deep_mm: { on: false, low: 30, high: 90, steps: 3 },
    surge_l: { on: false, low: 0, high: 2, steps: 3 },
  },
  places: { on: false, along: 8, across: 5 },
}))

export const setWay = (way: Way, part: Partial<Varied>) =>
  useAsk.setState((asking) => ({ ways: { ...asking.ways, [way]: { ...asking.ways[way], ...part } } }))
export const setPlaces = (part: Partial<Asking['places']>) =>
  useAsk.setState((asking) => ({ places: { ...asking.places, ...part } }))
