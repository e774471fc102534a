/** Volumes to and from litres. The only place where gallons are known. */
import type { Units } from '../api/model'
import type { Parsed } from './length'
import { plainNumber } from './number'
import { notA } from './quantity'

const LITRES_PER_US_GALLON = 3.785411784
const LITRES_PER_IMPERIAL_GALLON = 4.54609

/** Litres of one unit of volume. */
export const PER_UNIT: Record<Units, number> = {
  mm_l: 1,
  in_usgal: LITRES_PER_US_GALLON,
  in_impgal: LITRES_PER_IMPERIAL_GALLON,
}

export const VOLUME_UNIT: Record<Units, string> = { mm_l: 'L', in_usgal: 'US gal', in_impgal: 'imp gal' }

const VOLUME =
  /^\s*(\d+(?:[.,]\d+)?|[.,]\d+)\s*(l|litres?|liters?|us\s*gal(?:lons?)?|imp\s*gal(?:lons?)?|gal(?:lons?)?|ml)?\s*$/i

function factor(unit: string | undefined, units: Units): number | null {
  const name = (unit ?? '').toLowerCase().replace(/\s+/g, '')
  if (!name) return PER_UNIT[units]
  if (name === 'ml') return 0.001
  if (name.startsWith('l')) return 1
  if (name.startsWith('us')) return LITRES_PER_US_GALLON
  if (name.startsWith('imp')) return LITRES_PER_IMPERIAL_GALLON
  return units === 'mm_l' ? null : PER_UNIT[units]
}

/** Read a volume: `60`, `60 L`, `16 us gal`, `13 imp gal`. */
export function parseVolume(text: string, units: Units): Parsed {
  const found = VOLUME.exec(text)
  if (!found)
    return {
      ok: false,
      reason: text.trim()
        ? notA('a volume', text, text.replace(/^[\s\d.,]+/, ''), 'L, us gal, imp gal')
        : 'type a volume',
    }
  const per = factor(found[2], units)
  if (per === null) return { ok: false, reason: 'say which gallon: us gal or imp gal' }
  return { ok: true, value: Number((found[1] ?? '').replace(',', '.')) * per }
}

export const showVolume = (litres: number, units: Units, digits = 2) => plainNumber(litres / PER_UNIT[units], digits)

export const showVolumeUnit = (litres: number, units: Units, digits = 2) =>
  `${showVolume(litres, units, digits)} ${VOLUME_UNIT[units]}`

export const editVolume = (litres: number, units: Units) => String(Number((litres / PER_UNIT[units]).toFixed(4)))
