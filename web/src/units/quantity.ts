/** Quantities by the ending of their name, in the reader's units: the core's own table. */
import type { Units } from '../api/model'
import type { Parsed } from './length'
import { plainNumber } from './number'
import TABLE from './quantities.json'

export type Ending = keyof typeof TABLE.quantities
interface Shown {
  unit: string
  per: number
  digits: number
  zero: number
}
type Quantity = Record<Units, Shown> & { kind: string; typed: Record<string, number> }

const QUANTITIES = TABLE.quantities as unknown as Record<Ending, Quantity>
export const isEnding = (name: string): name is Ending => name in QUANTITIES

/** A field's name as words, less the ending that is its unit. */
export function withoutUnit(name: string): string {
  const words = name.split('_')
  const last = words.at(-1) ?? ''
  if (words.length > 1 && (isEnding(last) || last === 'mm' || last === 'l')) words.pop()
  return words.join(' ')
}

export const unitOf = (ending: Ending, units: Units) => QUANTITIES[ending][units].unit
/** How much of what is kept one of the reader's unit is. */
export const perOf = (ending: Ending, units: Units) => QUANTITIES[ending][units].per

/** A quantity as a bare number in the reader's unit. */
export function showAmount(ending: Ending, value: number, units: Units, digits?: number): string {
  const how = QUANTITIES[ending][units]
  const amount = (value - how.zero) / how.per
  const places = digits ?? how.digits
  return places < 0 ? String(Number(amount.toPrecision(6))).replace('-', '−') : plainNumber(amount, places)
}

/** Endings whose metric unit isn't everybody's. */
const METRIC = (Object.keys(QUANTITIES) as Ending[]).filter(
  (ending) => QUANTITIES[ending].mm_l.unit !== QUANTITIES[ending].in_usgal.unit,
)
const AMOUNT = /(\d+(?:\.(\d+))?) ([^\s,;:.)]+)/g

/** The ending of a metric unit: of those that share it the one that is shown as finely. */
function endingOf(unit: string, digits: number): Ending | undefined {
  const alike = METRIC.filter((ending) => QUANTITIES[ending].mm_l.unit === unit)
  return alike.find((ending) => QUANTITIES[ending].mm_l.digits === digits) ?? alike[0]
}

/** A plain sentence's metric quantities in the reader's units, but for lengths and volumes, which have rules of their own. */
export const quantitiesIn = (text: string, units: Units) =>
  text.replace(AMOUNT, (met, amount: string, digits: string | undefined, unit: string) => {
    const ending = endingOf(unit, digits?.length ?? 0)
    return ending ? showQuantity(ending, Number(amount), units) : met
  })

/** The same with its unit. */
export function showQuantity(ending: Ending, value: number, units: Units, digits?: number): string {
  const { unit } = QUANTITIES[ending][units]
  return `${showAmount(ending, value, units, digits)}${unit === '°' ? '' : ' '}${unit}`
}

/** A quantity for typing over: nothing is lost by leaving it as it is. */
export function editQuantity(ending: Ending, value: number, units: Units): string {
  const { per, zero } = QUANTITIES[ending][units]
  return String(Number(((value - zero) / per).toFixed(4)))
}

const OTHERS: [string, RegExp][] = [
  ['a length', /^(mm|cm|m|in|inch|inches|ft|"|″|'|′)$/],
  ['a volume', /^(l|ml|litres?|liters?|(us|imp)?gal(lons?)?)$/],
  ['a flow', /^(l|(us|imp)?gal)\/(h|min)$/],
]
const plain = (unit: string) => unit.toLowerCase().replace(/[\s()]/g, '')

/** What kind of quantity a unit is of; null for what is no unit. */
export function kindOf(unit: string): string | null {
  const name = plain(unit)
  if (!name) return null
  const known = Object.values(QUANTITIES).find((quantity) => name in quantity.typed)
  return OTHERS.find(([, shape]) => shape.test(name))?.[0] ?? known?.kind ?? null
}

/** Why a text isn't the kind of quantity that is wanted. */
export function notA(kind: string, text: string, unit: string, examples: string): string {
  const other = kindOf(unit)
  return other && other !== kind
    ? `“${text.trim()}” is ${other}; ${kind} is wanted here: ${examples}`
    : `“${text.trim()}” is not ${kind}`
}

const TYPED = /^\s*([+−-]?)\s*(\d+(?:[.,]\d+)?|[.,]\d+)\s*(.*?)\s*$/

/** Read a quantity in any of its units: `16 psi`, `110 kPa`, `2.5 bar`; without one in the reader's. */
export function parseQuantity(text: string, ending: Ending, units: Units): Parsed {
  const { kind, typed, [units]: shown } = QUANTITIES[ending]
  if (!text.trim()) return { ok: false, reason: `type ${kind}` }
  const found = TYPED.exec(text)
  const unit = found?.[3] ?? ''
  const usual = plain(unit) === '' || plain(unit) === plain(shown.unit)
  const per = usual ? shown.per : typed[plain(unit)]
  if (!found || per === undefined)
    return {
      ok: false,
      reason: notA(
        kind,
        text,
        unit,
        [shown.unit, ...Object.keys(typed)]
          .filter((name, place, all) => all.findIndex((other) => plain(other) === plain(name)) === place)
          .slice(0, 4)
          .join(', '),
      ),
    }
  const amount = Number((found[2] ?? '').replace(',', '.')) * (found[1] && found[1] !== '+' ? -1 : 1)
  const zero = usual ? shown.zero : ending === 'c' && plain(unit).includes('f') ? QUANTITIES.c.in_usgal.zero : 0
  return { ok: true, value: Number((amount * per + zero).toPrecision(12)) }
}
