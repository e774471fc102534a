import * as declared from '../../api/declared'
import type {
  Anchor,
  Bearer,
  Bolting,
  Bracket,
  Foot,
  Mount,
  NewWork,
  Stop,
  Strap,
  Structure,
  StructureCut,
} from '../../api/model'
import { freshName } from '../../work/naming'
import { change, select, useWork } from '../../work/store'

export const setMount = (part: Partial<Mount>) =>
  change((design) => ({ ...design, mount: { ...design.mount, ...part } }))

type Lists = {
  straps: Strap
  feet: Foot
  stops: Stop
  bearers: Bearer
  brackets: Bracket
  new_work: NewWork
  cuts: StructureCut
}
export type ListName = keyof Lists

/** Change one strap, foot or stop. */
export const changeHeld = <N extends ListName>(list: N, id: string, part: Partial<Lists[N]>) =>
  change((design) => {
    const held = design.mount[list] as Lists[N][]
    return {
      ...design,
      mount: { ...design.mount, [list]: held.map((one) => (one.id === id ? { ...one, ...part } : one)) },
    }
  })

export const changeStrap = (id: string, part: Partial<Strap>) => changeHeld('straps', id, part)
export const changeAnchor = (strap: Strap, end: 'low' | 'high', part: Partial<Anchor>) =>
  changeStrap(strap.id, { [end]: { ...strap[end], ...part } })

export function removeHeld(list: ListName, id: string) {
  select(null)
  change((design) => ({
    ...design,
    mount: { ...design.mount, [list]: design.mount[list].filter((one) => one.id !== id) },
  }))
}

const all = ({ straps, feet, stops, bearers }: Mount) => [...straps, ...feet, ...stops, ...bearers]

/** The box round the tank as it is worked out; null before that. */
const bounds = () => useWork.getState().evaluation?.shell?.geometry?.overall ?? null

export const USUAL_BOLTS: Bolting = declared.Bolting.defaults
export const USUAL_STRUCTURE: Structure = declared.Structure.defaults
const bolted = { bolts: USUAL_BOLTS, structure: USUAL_STRUCTURE, match_made: false }
const BESIDE_MM = 25

/** One more strap: like the last, a little further along; or a first one over the middle. */
export function addStrap() {
  const box = bounds()
  if (!box) return
  const { mount } = useWork.getState().design
  const last = mount.straps.at(-1)
  const named = freshName('strap', all(mount))
  const at = Math.round(last ? last.at_mm + (last.across === 'y' ? 100 : 50) : (box.low.x + box.high.x) / 2)
  const anchor = (out_mm: number): Anchor => ({ ...bolted, out_mm, z_mm: Math.round(box.low.z) })
  const first: Strap = {
    ...declared.Strap.defaults,
    ...named,
    at_mm: at,
    low: anchor(Math.round(box.low.y - BESIDE_MM)),
    high: anchor(Math.round(box.high.y + BESIDE_MM)),
  }
  setMount({ straps: [...mount.straps, last ? { ...last, ...named, at_mm: at, existing_mm: null } : first] })
  select({ kind: 'mount', id: named.id })
}

/** One more foot at the next free lower corner of the tank. */
export function addFoot() {
  const box = bounds()
  if (!box) return
  const { mount } = useWork.getState().design
  const named = freshName('foot', all(mount))
  const corner = mount.feet.length % 4
  const x_mm = Math.round(corner % 2 ? box.high.x + BESIDE_MM : box.low.x - BESIDE_MM)
  const y_mm = Math.round(corner < 2 ? box.low.y + BESIDE_MM : box.high.y - BESIDE_MM)
  const foot: Foot = { ...declared.Foot.defaults, ...bolted, ...named, x_mm, y_mm, z_mm: Math.round(box.low.z) }
  setMount({ feet: [...mount.feet, foot] })
  select({ kind: 'mount', id: named.id })
}

/** One more stop against the front, or the next side without one: against its plate, between the lips round it. */
export function addStop() {
  const box = useWork.getState().evaluation?.shell?.geometry?.body
  if (!box) return
  const { mount } = useWork.getState().design
  const sides = ['front', 'rear', 'left', 'right'] as const
  const side = sides.find((one) => !mount.stops.some((stop) => stop.side === one)) ?? 'front'
  const named = { ...freshName('stop', all(mount)), name: `${side} stop` }
  const middle = (axis: 'x' | 'y') => (box.low[axis] + box.high[axis]) / 2
  const pad_mm = declared.Stop.defaults.pad_mm
  const at = {
    front: { x_mm: box.high.x + pad_mm, y_mm: middle('y') },
    rear: { x_mm: box.low.x - pad_mm, y_mm: middle('y') },
    left: { x_mm: middle('x'), y_mm: box.high.y + pad_mm },
    right: { x_mm: middle('x'), y_mm: box.low.y - pad_mm },
  }[side]
  const z_mm = Math.round(box.low.z + (box.high.z - box.low.z) / 6)
  const stop: Stop = {
    ...declared.Stop.defaults,
    ...bolted,
    ...named,
    side,
    x_mm: Math.round(at.x_mm),
    y_mm: Math.round(at.y_mm),
    z_mm,
  }
  setMount({ stops: [...mount.stops, stop] })
  select({ kind: 'mount', id: named.id })
}

/** One more bearer under the tank, a quarter in from the next end. */
export function addBearer() {
  const box = bounds()
  if (!box) return
  const { mount } = useWork.getState().design
  const named = freshName('bearer', all(mount))
  const share = mount.bearers.length % 2 ? 0.75 : 0.25
  const bearer: Bearer = {
    ...declared.Bearer.defaults,
    ...bolted,
    ...named,
    at_mm: Math.round(box.low.x + share * (box.high.x - box.low.x)),
    low_mm: Math.round(box.low.y - BESIDE_MM),
    high_mm: Math.round(box.high.y + BESIDE_MM),
  }
  setMount({ bearers: [...mount.bearers, bearer] })
  select({ kind: 'mount', id: named.id })
}
