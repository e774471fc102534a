/** Sizes of wires: square millimetres of copper, or the American gauge with at least so much. */
import type { Units } from '../api/model'
import { type Parsed } from './length'
import TABLE from './quantities.json'

const GAUGES: [number, number][] = Object.entries(TABLE.wire_gauges_mm2).map(([gauge, mm2]) => [Number(gauge), mm2])
const TYPED = /^\s*(?:awg\s*)?(\d{1,2})\s*(?:awg|ga\.?|gauge)?\s*$/i
const COPPER = /^\s*(\d+(?:[.,]\d+)?)\s*(?:mm²|mm2|mm\^2|sq\.?\s*mm)?\s*$/i
const SAYS_GAUGE = /awg|ga|gauge/i
const SAYS_COPPER = /mm/i

const plain = (mm2: number) => String(Number(mm2.toPrecision(4)))

/** The thinnest gauge with at least so much copper. */
const gaugeOf = (mm2: number) =>
  [...GAUGES].sort((a, b) => b[0] - a[0]).find(([, copper]) => copper >= mm2 - 1e-9)?.[0] ?? null

export function showWire(mm2: number, units: Units): string {
  const gauge = units === 'mm_l' ? null : gaugeOf(mm2)
  // Neither is torn from its unit at a line's end.
  return gauge === null ? `${plain(mm2)}\u00a0mm²` : `AWG\u00a0${gauge}`
}

/** What stands in a field: a bare number is of the reader's own kind. */
export function editWire(mm2: number, units: Units): string {
  const exact = GAUGES.find(([, copper]) => Math.abs(copper - mm2) < 1e-6)
  if (units === 'mm_l') return plain(mm2)
  return exact ? String(exact[0]) : `${plain(mm2)} mm²`
}

/** Read `2.5`, `2.5 mm²` or `AWG 14`. */
export function parseWire(text: string, units: Units): Parsed {
  const gauge = TYPED.exec(text)?.[1]
  if (gauge && !SAYS_COPPER.test(text) && (units !== 'mm_l' || SAYS_GAUGE.test(text))) {
    const found = GAUGES.find(([one]) => one === Number(gauge))
    if (found) return { ok: true, value: found[1] }
    return { ok: false, reason: `there is no gauge ${gauge}: ${GAUGES.map(([one]) => one).join(', ')}` }
  }
  const copper = COPPER.exec(text)?.[1]
  if (copper) return { ok: true, value: Number(copper.replace(',', '.')) }
  return { ok: false, reason: `“${text.trim()}” is no size of wire: 2.5 mm² or AWG 14` }
}

export const WIRE_UNIT: Record<Units, string> = { mm_l: 'mm²', in_usgal: 'AWG', in_impgal: 'AWG' }
