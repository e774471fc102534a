/** Sheet by thickness and by gauge number: the same number is another thickness in another metal. */
import { parseLength, type Parsed } from './length'
import TABLE from './quantities.json'

const GAUGES: Record<string, Record<string, number>> = TABLE.gauges
const NEAR = 0.02
const GAUGE = /^\s*(?:(?:ga|gauge)\s*(\d{1,2})|(\d{1,2})\s*(?:ga|gauge)\.?)\s*$/i

/** Read a thickness: a length, or `14 ga` in the metal's own gauge. */
export function parseSheet(text: string, metal: string, inches: boolean): Parsed {
  const found = GAUGE.exec(text)
  if (!found) return parseLength(text, inches)
  const number = found[1] ?? found[2] ?? ''
  const mm = GAUGES[metal]?.[number]
  return mm === undefined
    ? { ok: false, reason: `${metal} has no gauge ${number}: 3 to 30 are known` }
    : { ok: true, value: mm }
}

/** The gauge number that a sheet of a metal goes by, in words; nothing where it goes by none. */
export function gaugeText(metal: string, mm: number): string {
  const near = Object.entries(GAUGES[metal] ?? {}).sort((a, b) => Math.abs(a[1] - mm) - Math.abs(b[1] - mm))[0]
  return near && Math.abs(near[1] - mm) <= NEAR * near[1] ? `${near[0]} gauge` : ''
}
