import { useUnits } from '../../units/useUnits'

/** A current with its unit, or that nobody knows it. */
export function useAmps() {
  const units = useUnits()
  return (amps: number | null | undefined) => (typeof amps === 'number' ? units.quantity('a', amps) : 'not known')
}
