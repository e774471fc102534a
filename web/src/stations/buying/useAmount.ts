import type { BuyingRow } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import type { Ending } from '../../units/quantity'

const ENDINGS: Record<Exclude<BuyingRow['unit'], 'each'>, Ending> = { m: 'm', 'm²': 'm2', kg: 'kg' }

/** A line's quantity in the reader's units. */
export function useAmount() {
  const units = useUnits()
  return (value: number, unit: BuyingRow['unit']) =>
    unit === 'each' ? String(Number(value.toFixed(2))) : units.quantity(ENDINGS[unit], value)
}

export const endingOf = (unit: BuyingRow['unit']): Ending | null => (unit === 'each' ? null : ENDINGS[unit])

/** In which unit its price is, where it isn't of one piece. */
export const priceOf = (unit: BuyingRow['unit']): Ending | null =>
  unit === 'each' ? null : ({ m: 'perm', 'm²': 'persqm', kg: 'perkg' } as const)[unit]
