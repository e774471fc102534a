import type { Lines, Port } from '../../api/model'
import { TANK } from './edits'
import type { At } from './view'

const SAID: Record<string, string> = {
  in: 'inlet',
  out: 'outlet',
  a: 'first run',
  b: 'second run',
  c: 'branch',
  return: 'return',
  drive: 'drive',
  suction: 'suction',
  lift: 'lift inlet',
  overflow: 'overflow',
  vent: 'vent',
  reference: 'reference',
  manifold: 'manifold',
}

export const portName = (port: string) => SAID[port] ?? port

/** A connection as people say it. */
export function portNamed(lines: Lines, at: At, ports: readonly Port[] = []): string {
  if (at.part === TANK) return `${ports.find((port) => port.id === at.port)?.name ?? at.port} of the tank`
  const part = lines.parts.find((one) => one.id === at.part)
  return `${portName(at.port)} of ${part?.name ?? at.part}`
}

/** What each kind is called in a list. */
export const KIND_ORDER = [
  'pump',
  'engine-driven pump',
  'filter',
  'check valve',
  'isolating valve',
  'regulator',
  'rail',
  'carburettor',
  'injection pump',
  'delivery nozzle',
  'burner',
  'tee',
  'bulkhead',
  'sensor',
  'jet pump',
  'surge tank',
  'other tank',
  'canister',
  'vapour valve',
  'roll-over valve',
  'vent end',
  'cap',
] as const
