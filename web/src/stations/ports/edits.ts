import * as declared from '../../api/declared'
import type { Design, Port, PortPart } from '../../api/model'
import { changePort } from '../../drawing/edits'
import { labelled } from '../../fields/choices'
import { freshName } from '../../work/naming'
import { change, select, useWork } from '../../work/store'

export const ROLES = labelled(declared.Port.choices.role, {
  pickup: 'pickup, where fuel is drawn',
  filler: 'filler',
  vent: 'vent, where air gets out',
  overflow: 'overflow, back to the main tank',
  return: 'return from the engine',
  drain: 'drain',
  transfer: 'transfer, a jet pump’s draw',
  spare: 'spare boss',
  fitting: 'other fitting',
})

const SIZES = ['stands_mm', 'across_mm', 'hangs_mm', 'hangs_across_mm', 'diagonal_mm', 'spanner_mm'] as const
const PARTS = ['bend', 'seat', 'hanger', 'vent', 'neck'] as const

const STANDS_MM = 40
const USUAL: Partial<Record<Port['role'], Partial<Port>>> = {
  pickup: { stands_mm: 0 },
  vent: { vent: declared.VentPath.defaults },
  overflow: { vent: { ...declared.VentPath.defaults, bore_mm: 12 } },
  filler: { neck: declared.NeckPath.defaults },
  drain: { face: 'floor', stands_mm: 0 },
}

/** Where a new port is put, as shares of length and width: in the middle, or the first of these that is free. */
const PLACES = [0.5, 0.25, 0.75, 0.375, 0.625].flatMap((u) => [0.5, 0.25, 0.75].map((v) => [u, v] as const))
const HAND_MM = 15

/** How far a port's middle keeps others off. */
const halfOf = (port: Port) => Math.max(port.across_mm / 2, (port.seat?.outer_mm ?? 0) / 2, port.spanner_mm) + HAND_MM

/** How far a port stands clear of its nearest neighbour on the same face; below zero they are in each other's way. */
const roomOf = (port: Port, ports: readonly Port[]) =>
  Math.min(
    ...ports
      .filter((other) => other.face === port.face)
      .map((other) => Math.hypot(other.x_mm - port.x_mm, other.y_mm - port.y_mm) - halfOf(port) - halfOf(other)),
  )

/** A new port of a role in the lid or floor, clear of others where there is room, or null before there is a tank. */
function freshPort(role: Port['role']): Port | null {
  const { design, evaluation } = useWork.getState()
  const shape = evaluation?.shell?.geometry
  if (!shape) return null
  const at = (axis: 'x' | 'y', share: number) => Math.round((shape.body.high[axis] - shape.body.low[axis]) * share)
  const placed = ([u, v]: readonly [number, number]): Port => ({
    ...declared.Port.defaults,
    ...freshName(role, design.ports),
    role,
    x_mm: at('x', u),
    y_mm: at('y', v),
    stands_mm: STANDS_MM,
    ...USUAL[role],
  })
  const ways = PLACES.map(placed)
  const room = ways.map((port) => roomOf(port, design.ports))
  const free = room.findIndex((mm) => mm >= 0)
  return ways[free < 0 ? room.indexOf(Math.max(...room)) : free] ?? null
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
export const changeRole = (port: Port, role: Port['role']) =>
  changePort(port.id, {
    role,
    vent: port.vent ?? (role === 'vent' ? (USUAL.vent?.vent ?? null) : null),
    neck: port.neck ?? (role === 'filler' ? (USUAL.filler?.neck ?? null) : null),
  })

type Inner = 'bend' | 'seat' | 'hanger' | 'vent' | 'neck'
/** Change one thing of a port's hose, seat, hanger, vent or neck. */
export const changeInner = <K extends Inner>(port: Port, inner: K, part: Partial<NonNullable<Port[K]>>) =>
  changePort(port.id, { [inner]: { ...port[inner], ...part } } as Partial<Port>)

export const setFilling = (part: Partial<NonNullable<Design['filling']>>) =>
  change((design) => ({ ...design, filling: { ...design.filling, ...part } as Design['filling'] }))

export const NEW_SEAT: NonNullable<Port['seat']> = { ...declared.Seat.defaults, hole_mm: 20, outer_mm: 36 }
export const newHanger = (depth: number): NonNullable<Port['hanger']> => ({
  ...declared.Hanger.defaults,
  made_for_mm: Math.round(depth),
})
