import type { Design, Port, PortPart } from '../../api/model'
import { changePort } from '../../drawing/edits'
import { change, select, useWork } from '../../work/store'

export const ROLES: { value: Port['role']; label: string }[] = [
  { value: 'pickup', label: 'pickup, where fuel is drawn' },
  { value: 'filler', label: 'filler' },
  { value: 'vent', label: 'vent, where air gets out' },
  { value: 'overflow', label: 'overflow, back to the main tank' },
  { value: 'return', label: 'return from the engine' },
  { value: 'drain', label: 'drain' },
  { value: 'transfer', label: 'transfer, a jet pump’s draw' },
  { value: 'spare', label: 'spare boss' },
  { value: 'fitting', label: 'other fitting' },
]

const SIZES = ['stands_mm', 'across_mm', 'hangs_mm', 'hangs_across_mm', 'diagonal_mm', 'spanner_mm'] as const
const PARTS = ['bend', 'seat', 'hanger', 'vent', 'neck'] as const

const PLAIN = { stands_mm: 40, across_mm: 60, hangs_mm: 0, hangs_across_mm: 0, diagonal_mm: 0, spanner_mm: 0, bend: null, seat: null, hanger: null, vent: null, neck: null }
const USUAL: Partial<Record<Port['role'], Partial<Port>>> = {
  pickup: { stands_mm: 0 },
  vent: { vent: { valves: [], bore_mm: 8, length_m: 0, opens_kpa: 0, rollover: false, lean_deg: 0, outside: null, below_people: null, away_from_exhaust: null, falls_away: null } },
  overflow: { vent: { valves: [], bore_mm: 12, length_m: 0, opens_kpa: 0, rollover: false, lean_deg: 0, outside: null, below_people: null, away_from_exhaust: null, falls_away: null } },
  filler: { neck: { bore_mm: 38, bonded: null, valves: [] } },
  drain: { face: 'floor', stands_mm: 0 },
}

/** A new port of a role in the middle of the lid or floor, or null before there is a tank. */
function freshPort(role: Port['role']): Port | null {
  const { design, evaluation } = useWork.getState()
  const shape = evaluation?.shell?.geometry
  if (!shape) return null
  let number = 1
  while (design.ports.some((port) => port.id === `${role}-${number}`)) number += 1
  const middle = (axis: 'x' | 'y') => Math.round((shape.body.high[axis] - shape.body.low[axis]) / 2)
  return { id: `${role}-${number}`, name: number > 1 ? `${role} ${number}` : role, role, face: 'roof', x_mm: middle('x'), y_mm: middle('y'), z_mm: null, clock_deg: 0, hose_deg: null, stop_deg: null, capped: false, pumped: false, part: '', ...PLAIN, ...USUAL[role] }
}

export function addPort(role: Port['role']) {
  const fresh = freshPort(role)
  if (!fresh) return
  change((design) => ({ ...design, ports: [...design.ports, fresh] }))
  select({ kind: 'port', id: fresh.id })
}

export function removePort(id: string) {
  select(null)
  change((design) => ({ ...design, ports: design.ports.filter((item) => item.id !== id) }))
}

/** Make a port the part of the shop's library: its sizes come along, its place and what was measured stay. */
export function fitPart(port: Port, part: PortPart) {
  const sizes = Object.fromEntries(SIZES.map((name) => [name, part[name] ?? 0]))
  const whole = Object.fromEntries(PARTS.map((name) => [name, part[name] ?? null]))
  const kept = part.hanger && port.hanger ? { hanger: { ...part.hanger, measured_mm: port.hanger.measured_mm } } : {}
  changePort(port.id, { ...sizes, ...whole, ...kept, part: part.name, role: part.role } as Partial<Port>)
}

/** Turn a port into another role; what its new role needs to know comes along, empty. */
export const changeRole = (port: Port, role: Port['role']) => changePort(port.id, { role, vent: port.vent ?? (role === 'vent' ? (USUAL.vent?.vent ?? null) : null), neck: port.neck ?? (role === 'filler' ? (USUAL.filler?.neck ?? null) : null) })

type Inner = 'bend' | 'seat' | 'hanger' | 'vent' | 'neck'
/** Change one thing of a port's hose, seat, hanger, vent or neck. */
export const changeInner = <K extends Inner>(port: Port, inner: K, part: Partial<NonNullable<Port[K]>>) => changePort(port.id, { [inner]: { ...port[inner], ...part } } as Partial<Port>)

export const setFilling = (part: Partial<NonNullable<Design['filling']>>) => change((design) => ({ ...design, filling: { ...design.filling, ...part } as Design['filling'] }))

export const NEW_SEAT: NonNullable<Port['seat']> = { kind: 'boss', hole_mm: 20, outer_mm: 36, bolt_circle_mm: null, bolts: null, bolt_mm: null, torque_nm: null, plate_mm: null, thread: '' }
export const newHanger = (depth: number): NonNullable<Port['hanger']> => ({ kind: 'hanger', made_for_mm: Math.round(depth), sprung: false, extend_mm: 0, remote: false, bracket_mm: 0, bracket_least_mm: 20, pump_mm: 0, strainer_mm: 0, measured_mm: null, grip_mm: 25 })
