import * as declared from '../../api/declared'
import type { Feature, Port } from '../../api/model'

export const NAMES: Record<Feature['kind'], string> = {
  well: 'well',
  sump: 'sump',
  relief: 'relief',
  'roof step': 'roof step',
  partition: 'partition',
  baffle: 'baffle',
  pot: 'pot',
}

type Baffle = Extract<Feature, { kind: 'baffle' }>
type Size = { x: number; y: number; z: number }

const tens = (mm: number) => Math.max(10, Math.round(mm / 10) * 10)

/** A feature as it is begun with, sized by the tank. */
export function freshFeature(
  kind: Feature['kind'],
  present: Feature[],
  size: Size,
  plate: Baffle | null,
  pickup: Port | undefined,
): Feature {
  const stem = kind.replace(' ', '-')
  let number = present.filter((item) => item.kind === kind).length + 1
  while (present.some((item) => item.id === `${stem}-${number}`)) number += 1
  const named = { id: `${stem}-${number}`, name: number > 1 ? `${NAMES[kind]} ${number}` : NAMES[kind] }
  switch (kind) {
    case 'well':
      return {
        ...declared.Well.defaults,
        ...named,
        kind,
        a_mm: tens(size.x * 0.35),
        b_mm: tens(size.y * 0.35),
        long_mm: tens(size.x * 0.25),
        wide_mm: tens(size.y * 0.3),
        deep_mm: tens(size.z * 0.2),
      }
    case 'sump':
      return {
        ...declared.Sump.defaults,
        ...named,
        kind,
        a_mm: tens(size.x * 0.1),
        b_mm: tens(size.y * 0.35),
        long_mm: tens(size.x * 0.25),
        wide_mm: tens(size.y * 0.3),
        deep_mm: 50,
      }
    case 'relief':
      return {
        ...declared.Relief.defaults,
        ...named,
        kind,
        x_mm: 0,
        y_mm: tens(size.y * 0.8),
        z_mm: 0,
        length_mm: size.x,
        width_mm: size.y - tens(size.y * 0.8),
        height_mm: tens(size.z * 0.2),
      }
    case 'roof step':
      return {
        ...declared.RoofStep.defaults,
        ...named,
        kind,
        reach_mm: tens(size.x * 0.3),
        drop_mm: tens(size.z * 0.25),
      }
    case 'partition':
      return {
        ...declared.Partition.defaults,
        ...named,
        kind,
        axis: plate?.axis ?? 'x',
        at_mm: plate?.at_mm ?? tens(size.x / 2),
      }
    case 'baffle':
      return { ...declared.Baffle.defaults, at_mm: tens(size.x / 2), ...plate, ...named, kind }
    case 'pot': {
      const middle = pickup ?? { x_mm: size.x / 2, y_mm: size.y / 2 }
      const usual = Math.min(size.x, size.y) * 0.4
      const [long, wide] = [
        tens(Math.min(usual, 2 * roomBeside(present, 'x', middle.x_mm))),
        tens(Math.min(usual, 2 * roomBeside(present, 'y', middle.y_mm))),
      ]
      const door = { ...declared.PotDoor.defaults, wide_mm: tens(wide * 0.4), high_mm: 25 }
      return {
        ...declared.Pot.defaults,
        ...named,
        kind,
        a_mm: Math.round(middle.x_mm - long / 2),
        b_mm: Math.round(middle.y_mm - wide / 2),
        long_mm: long,
        wide_mm: wide,
        high_mm: tens(size.z * 0.5),
        doors: [
          { ...door, side: 'rear' },
          { ...door, side: 'front' },
        ],
      }
    }
  }
}

/** How far a plate square to an axis stands from a place, less some room to weld. */
function roomBeside(present: Feature[], axis: 'x' | 'y', place: number) {
  const off = present.flatMap((item) =>
    (item.kind === 'baffle' || item.kind === 'partition') && item.axis === axis
      ? [Math.abs(item.at_mm - place) - WELD_ROOM_MM]
      : [],
  )
  return Math.min(...off, Infinity)
}
const WELD_ROOM_MM = 15
