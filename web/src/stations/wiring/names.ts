import * as declared from '../../api/declared'
import type { Device, DeviceDoes, Joined, WireEnd } from '../../api/model'

type Kind = DeviceDoes['kind']

/** What each kind is called in a list, in the order of the current's way. */
export const KIND_ORDER: readonly Kind[] = [
  'battery',
  'fuse',
  'switch',
  'cut-off',
  'changeover switch',
  'controller',
  'relay',
  'connector',
  'splice',
  'earth point',
  'lamp',
  'level switch',
  'gauge',
  'other load',
]

export const DEFAULTS: Record<Kind, DeviceDoes> = {
  battery: declared.BatteryDoes.defaults as DeviceDoes,
  'earth point': declared.EarthDoes.defaults as DeviceDoes,
  fuse: declared.FuseDoes.defaults as DeviceDoes,
  relay: declared.RelayDoes.defaults as DeviceDoes,
  'cut-off': declared.CutOffDoes.defaults as DeviceDoes,
  switch: declared.SwitchDoes.defaults as DeviceDoes,
  'changeover switch': declared.ChangeoverDoes.defaults as DeviceDoes,
  lamp: declared.LampDoes.defaults as DeviceDoes,
  'level switch': declared.LevelSwitchDoes.defaults as DeviceDoes,
  controller: declared.ControllerDoes.defaults as DeviceDoes,
  connector: declared.ConnectorDoes.defaults as DeviceDoes,
  splice: declared.SpliceDoes.defaults as DeviceDoes,
  gauge: declared.GaugeDoes.defaults as DeviceDoes,
  'other load': declared.LoadDoes.defaults as DeviceDoes,
}

const TERMINALS: Partial<Record<string, readonly string[]>> = {
  battery: ['+', '-'],
  'earth point': ['earth'],
  relay: ['coil +', 'coil -', 'in', 'out'],
  'changeover switch': ['in', 'a', 'b'],
  lamp: ['+', '-'],
  splice: ['joint'],
  gauge: ['+', '-', 'sender'],
  'other load': ['+', '-'],
  pump: ['+', '-'],
  sender: ['signal', '-'],
}

/** Where wires can be joined to a device. */
export function terminalsOf({ does }: Pick<Device, 'does'>): readonly string[] {
  if (does.kind === 'connector') return Array.from({ length: does.pins }, (_, n) => String(n + 1))
  if (does.kind === 'controller') return ['+', '-', ...does.outputs.map((_, n) => `out ${n + 1}`)]
  return TERMINALS[does.kind] ?? ['in', 'out']
}

export const terminalsOfKind = (kind: 'pump' | 'sender') => TERMINALS[kind] ?? []

/** A terminal as people say it. */
export function endNamed(end: WireEnd, joined: readonly Joined[] | undefined): string {
  const thing = joined?.find((one) => one.of === end.of && one.id === end.id)
  const name = thing?.name ?? end.id
  if (end.terminal === 'earth' || end.terminal === 'joint') return name
  return `${name}: ${thing?.kind === 'connector' ? 'pin ' : ''}${end.terminal}`.replace(/-$/, '−')
}
