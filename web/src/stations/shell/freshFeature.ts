import * as declared from '../../api/declared'
import type { Feature, Port } from '../../api/model'
import { setShell } from '../../drawing/edits'
import { freshName } from '../../work/naming'
import { select, useWork } from '../../work/store'

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
type Pot = Extract<Feature, { kind: 'pot' }>
type Place = Pick<Port, 'x_mm' | 'y_mm'>
type Size = { x: number; y: number; z: number }

const tens = (mm: number) => Math.max(10, Math.round(mm / 10) * 10)

/** What a tank that isn't worked out yet is taken to measure [mm]. */
const UNSEEN: Size = { x: 600, y: 400, z: 300 }

/** Put one more feature of a kind into the tank, and have it at hand. */
export function addFeature(kind: Feature['kind']) {
  const { design, evaluation } = useWork.getState()
  const body = evaluation?.shell?.geometry?.body
  const size = body ? { x: body.high.x - body.low.x, y: body.high.y - body.low.y, z: body.high.z - body.low.z } : UNSEEN
  const present = design.shell?.features ?? []
  const pickups = design.ports.filter((port) => port.role === 'pickup')
  const fresh = freshFeature(kind, present, size, evaluation?.inside?.next_plate ?? null, pickups)
  setShell({ features: [...present, fresh] })
  select({ kind: 'feature', id: fresh.id })
}

/** A feature as it is begun with, sized by the tank, where nothing of its like is yet. */
function freshFeature(
  kind: Feature['kind'],
  present: Feature[],
  size: Size,
  plate: Baffle | null,
  pickups: readonly Place[],
): Feature {
  const named = freshName(NAMES[kind], present)
  const like = present.filter((item) => item.kind === kind)
  switch (kind) {
    case 'well':
      return { ...declared.Well.defaults, ...named, kind, ...letIn(0.35, like, size), deep_mm: tens(size.z * 0.2) }
    case 'sump':
      return { ...declared.Sump.defaults, ...named, kind, ...letIn(0.1, like, size), deep_mm: 50 }
    case 'relief':
      return { ...declared.Relief.defaults, ...named, kind, ...alongAnEdge(like, size) }
    case 'roof step': {
      const sides = declared.RoofStep.choices.side
      const side = sides.find((one) => !like.some((step) => step.kind === kind && step.side === one)) ?? 'front'
      const [reach_mm, drop_mm] = [tens(size.x * 0.3), tens(size.z * 0.25)]
      return { ...declared.RoofStep.defaults, ...named, kind, side, reach_mm, drop_mm }
    }
    case 'partition': {
      const { axis, at_mm } = plate ?? { axis: 'x' as const, at_mm: betweenPlates(present, size) }
      return { ...declared.Partition.defaults, ...named, kind, axis, at_mm }
    }
    case 'baffle':
      return {
        ...declared.Baffle.defaults,
        at_mm: betweenPlates(present, size),
        corner_mm: Math.min(declared.Baffle.defaults.corner_mm, tens(Math.min(size.y, size.z) * 0.1)),
        ...plate,
        ...named,
        kind,
      }
    case 'pot':
      return freshPot(named, present, size, pickups)
  }
}

/** A rectangle in a face or a section [mm]. */
type Rectangle = Pick<Pot, 'a_mm' | 'b_mm' | 'long_mm' | 'wide_mm'>

/** The first of several places that none of its like reaches into; the last where all are taken. */
function free(places: Rectangle[], taken: Rectangle[]): Rectangle {
  const meets = (one: Rectangle, other: Rectangle) =>
    one.a_mm < other.a_mm + other.long_mm &&
    other.a_mm < one.a_mm + one.long_mm &&
    one.b_mm < other.b_mm + other.wide_mm &&
    other.b_mm < one.b_mm + one.wide_mm
  return (places.find((place) => !taken.some((other) => meets(other, place))) ?? places.at(-1)) as Rectangle
}

/** Where a well or a sump is let in: in the middle of the width, then beside that. */
function letIn(first: number, like: Feature[], size: Size): Rectangle {
  const [long_mm, wide_mm] = [tens(size.x * 0.25), tens(size.y * 0.3)]
  const shares = [first, ...[0.05, 0.7, 0.38].filter((share) => Math.abs(share - first) > 0.1)]
  const places = shares.flatMap((u) =>
    [0.35, 0.03, 0.67].map((v) => ({ a_mm: tens(size.x * u), b_mm: tens(size.y * v), long_mm, wide_mm })),
  )
  return free(
    places,
    like.flatMap((item) => (item.kind === 'well' || item.kind === 'sump' ? [item] : [])),
  )
}

/** What is cut away of one of the four long edges. */
function alongAnEdge(like: Feature[], size: Size) {
  const [far, high] = [tens(size.y * 0.8), tens(size.z * 0.8)]
  const [long_mm, wide_mm] = [size.y - far, tens(size.z * 0.2)]
  const at = free(
    [0, high].flatMap((b_mm) => [far, 0].map((a_mm) => ({ a_mm, b_mm, long_mm, wide_mm }))),
    like.flatMap((item) =>
      item.kind === 'relief'
        ? [{ a_mm: item.y_mm, b_mm: item.z_mm, long_mm: item.width_mm, wide_mm: item.height_mm }]
        : [],
    ),
  )
  const [y_mm, z_mm, width_mm, height_mm] = [at.a_mm, at.b_mm, at.long_mm, at.wide_mm]
  return { x_mm: 0, y_mm, z_mm, length_mm: size.x, width_mm, height_mm }
}

/** Where a plate across the tank has room beside others and clear of pots: in the middle, then in the quarters. */
function betweenPlates(present: Feature[], size: Size): number {
  const places = [0.5, 0.25, 0.75, 0.375, 0.625].map((share) => tens(size.x * share))
  const inAPot = (place: number) =>
    present.some((item) => item.kind === 'pot' && item.a_mm - WELD_ROOM_MM < place && place < item.a_mm + item.long_mm)
  return places.find((place) => !inAPot(place) && roomBeside(present, 'x', place) > 0) ?? tens(size.x / 2)
}

/** A pot round the first pickup that has none, or else in the first place that is free of other pots. */
function freshPot(named: { id: string; name: string }, present: Feature[], size: Size, pickups: readonly Place[]): Pot {
  const usual = Math.min(size.x, size.y) * 0.4
  const sizedAt = ({ x_mm, y_mm }: Place) => {
    const long_mm = tens(Math.min(usual, 2 * roomBeside(present, 'x', x_mm)))
    const wide_mm = tens(Math.min(usual, 2 * roomBeside(present, 'y', y_mm)))
    return { a_mm: Math.round(x_mm - long_mm / 2), b_mm: Math.round(y_mm - wide_mm / 2), long_mm, wide_mm }
  }
  const shares = [0.5, 0.25, 0.75]
  const elsewhere = shares.flatMap((v) => shares.map((u) => ({ x_mm: size.x * u, y_mm: size.y * v })))
  const at = free(
    [...pickups, ...elsewhere].map(sizedAt),
    present.flatMap((item) => (item.kind === 'pot' ? [item] : [])),
  )
  const door = { ...declared.PotDoor.defaults, wide_mm: tens(at.wide_mm * 0.4), high_mm: 25 }
  const doors = (['rear', 'front'] as const).map((side) => ({ ...door, side }))
  return { ...declared.Pot.defaults, ...named, ...at, kind: 'pot', high_mm: tens(size.z * 0.5), doors }
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
