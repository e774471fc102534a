import * as declared from '../../api/declared'
import type { Bond, Device, DeviceDoes, Joined, Wire, WireEnd, Wiring } from '../../api/model'
import { freshName } from '../../work/naming'
import { change, select, useWork } from '../../work/store'
import { DEFAULTS } from './names'
import { drawFrom } from './view'

export const setWiring = (part: Partial<Wiring>) =>
  change((design) => ({ ...design, wiring: { ...design.wiring, ...part } }))

type Lists = { devices: Device; wires: Wire; bonds: Bond }

const changeOne = <N extends keyof Lists>(list: N, id: string, part: Partial<Lists[N]>) =>
  change((design) => {
    const all = design.wiring[list] as Lists[N][]
    return {
      ...design,
      wiring: { ...design.wiring, [list]: all.map((one) => (one.id === id ? { ...one, ...part } : one)) },
    }
  })

export const changeDevice = (id: string, part: Partial<Device>) => changeOne('devices', id, part)
export const changeWire = (id: string, part: Partial<Wire>) => changeOne('wires', id, part)
export const changeBond = (id: string, part: Partial<Bond>) => changeOne('bonds', id, part)

/** Change what a device does; its kind stays. A terminal that is gone takes its wires with it. */
export function changeDoes(device: Device, does: object) {
  changeDevice(device.id, { does: { ...device.does, ...does } as DeviceDoes })
}

/** Fewer pins or outputs: wires at those that go are gone too. */
export function changeTerminals(device: Device, does: object, kept: readonly string[]) {
  const gone = (end: WireEnd) => end.of === 'device' && end.id === device.id && !kept.includes(end.terminal)
  change((design) => ({
    ...design,
    wiring: {
      ...design.wiring,
      devices: design.wiring.devices.map((one) =>
        one.id === device.id ? { ...one, does: { ...one.does, ...does } as DeviceDoes } : one,
      ),
      wires: design.wiring.wires.filter((wire) => !gone(wire.start) && !gone(wire.end)),
    },
  }))
}

const STEP_MM = 80

/** One more device, beside the last one; a first one over the tank's front. */
export function addDevice(kind: DeviceDoes['kind']) {
  const { design, evaluation } = useWork.getState()
  const last = design.wiring.devices.at(-1)
  const box = evaluation?.shell?.geometry?.overall
  const at = last
    ? { x_mm: last.x_mm, y_mm: last.y_mm + STEP_MM, z_mm: last.z_mm }
    : { x_mm: Math.round((box?.high.x ?? 0) + STEP_MM), y_mm: 0, z_mm: Math.round((box?.high.z ?? 0) + STEP_MM) }
  const named = freshName(kind, design.wiring.devices)
  setWiring({
    devices: [...design.wiring.devices, { ...declared.Device.defaults, ...named, does: DEFAULTS[kind], ...at }],
  })
  select({ kind: 'device', id: named.id })
}

/** A device is gone with its wires. */
export function removeDevice(id: string) {
  select(null)
  const at = (end: WireEnd) => end.of === 'device' && end.id === id
  change((design) => ({
    ...design,
    wiring: {
      ...design.wiring,
      devices: design.wiring.devices.filter((one) => one.id !== id),
      wires: design.wiring.wires.filter((wire) => !at(wire.start) && !at(wire.end)),
    },
  }))
}

export function removeWire(id: string) {
  select(null)
  change((design) => ({
    ...design,
    wiring: { ...design.wiring, wires: design.wiring.wires.filter((one) => one.id !== id) },
  }))
}

export const sameEnd = (one: WireEnd | null, other: WireEnd) =>
  one?.of === other.of && one.id === other.id && one.terminal === other.terminal

/** The next number that no wire has. */
function nextNumber(wires: readonly Wire[]): { id: string; name: string } {
  let number = wires.length + 1
  while (wires.some((wire) => wire.id === `w${number}` || wire.name === `W${number}`)) number += 1
  return { id: `w${number}`, name: `W${number}` }
}

/** Pressed once a wire begins there; pressed at another terminal it ends there. */
export function pressTerminal(end: WireEnd, from: WireEnd | null, joined: readonly Joined[] | undefined) {
  if (!from) {
    drawFrom(end)
    return
  }
  drawFrom(null)
  if (sameEnd(from, end)) return
  const { wires } = useWork.getState().design.wiring
  const inTank = [from, end].some(
    (one) => joined?.find((t) => t.of === one.of && t.id === one.id)?.stands === 'in the tank',
  )
  const wire: Wire = {
    ...declared.Wire.defaults,
    ...nextNumber(wires),
    ...(inTank ? { insulation: 'fluoropolymer' as const } : {}),
    start: from,
    end,
  }
  setWiring({ wires: [...wires, wire] })
  select({ kind: 'wire', id: wire.id })
}

export function addBond(start: string) {
  const { bonds } = useWork.getState().design.wiring
  const named = freshName('bond', bonds)
  setWiring({ bonds: [...bonds, { ...declared.Bond.defaults, ...named, start, end: 'chassis' }] })
}

export const removeBond = (id: string) =>
  setWiring({ bonds: useWork.getState().design.wiring.bonds.filter((one) => one.id !== id) })
