/** Power to and from kilowatts; flows by the reader's volume. The only place where horsepower is known. */
import type { Units } from '../api/model'
import type { Parsed } from './length'
import { plainNumber } from './number'
import { parseVolume, showVolume, VOLUME_UNIT } from './volume'

const KW_PER_HP = 0.745699872

export const POWER_UNIT: Record<Units, string> = { mm_l: 'kW', in_usgal: 'hp', in_impgal: 'hp' }

const POWER = /^\s*(\d+(?:[.,]\d+)?)\s*(kw|hp|bhp|ps)?\s*$/i

/** Read a power: `285`, `285 kW`, `380 hp`. */
export function parsePower(text: string, units: Units): Parsed {
  const found = POWER.exec(text)
  if (!found) return { ok: false, reason: text.trim() ? `“${text.trim()}” is not a power` : 'type a power' }
  const unit = found[2]?.toLowerCase() ?? POWER_UNIT[units].toLowerCase()
  if (unit === 'ps') return { ok: false, reason: 'say kW or hp' }
  return { ok: true, value: Number((found[1] ?? '').replace(',', '.')) * (unit === 'kw' ? 1 : KW_PER_HP) }
}

const perUnit = (kw: number, units: Units) => (POWER_UNIT[units] === 'kW' ? kw : kw / KW_PER_HP)
export const editPower = (kw: number, units: Units) => String(Number(perUnit(kw, units).toFixed(3)))
export const showPower = (kw: number, units: Units) => `${plainNumber(perUnit(kw, units), 1)} ${POWER_UNIT[units]}`

export const FLOW_UNIT: Record<Units, string> = { mm_l: 'L/h', in_usgal: 'US gal/h', in_impgal: 'imp gal/h' }
export const showFlow = (litresPerHour: number, units: Units, digits = 1) => `${showVolume(litresPerHour, units, digits)} ${VOLUME_UNIT[units]}/h`
/** Read a flow an hour: a volume with or without `/h`. */
export const parseFlow = (text: string, units: Units) => parseVolume(text.replace(/\s*\/\s*h\s*$/i, ''), units)
