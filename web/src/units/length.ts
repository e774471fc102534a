/** Lengths as people say them, to and from millimetres. The only place where inches are known. */

import { kindOf, notA } from './quantity'

export const MM_PER_INCH = 25.4
const EXAMPLES = 'mm, cm, in, ft'
const SIXTEENTHS = 16

const UNIT_MM: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  inches: MM_PER_INCH,
  '"': MM_PER_INCH,
  '″': MM_PER_INCH,
  '”': MM_PER_INCH,
  ft: 12 * MM_PER_INCH,
  "'": 12 * MM_PER_INCH,
  '′': 12 * MM_PER_INCH,
  '’': 12 * MM_PER_INCH,
}

export type Parsed = { ok: true; value: number } | { ok: false; reason: string }

const NUMBER = String.raw`(?:\d+(?:[.,]\d+)?|[.,]\d+)`
const AMOUNT = new RegExp(String.raw`^\s*(?:(${NUMBER})(?:\s+|-)(\d+)\s*/\s*(\d+)|(\d+)\s*/\s*(\d+)|(${NUMBER}))`)
const UNIT = /^\s*(mm|cm|m|inches|inch|in|ft|["″”'′’])/i

const SIGN = /^([+−-])\s*/

const no = (reason: string): Parsed => ({ ok: false, reason })
const decimal = (text: string) => Number(text.replace(',', '.'))

function amount(match: RegExpMatchArray): number {
  const [, whole, over, under, top, bottom, plain] = match
  if (plain !== undefined) return decimal(plain)
  if (top !== undefined) return Number(top) / Number(bottom)
  return decimal(whole ?? '0') + Number(over) / Number(under)
}

type Term = { value: number; rest: string; feet: boolean }

/** One amount with its unit; a bare amount after feet is inches, as in 1' 4 1/4". */
function term(text: string, usual: number): Term | null {
  const found = AMOUNT.exec(text)
  if (!found) return null
  let rest = text.slice(found[0].length)
  const unit = UNIT.exec(rest)
  if (unit) rest = rest.slice(unit[0].length)
  const size = unit ? UNIT_MM[(unit[1] ?? '').toLowerCase()] : usual
  const value = amount(found) * (size ?? Number.NaN)
  return Number.isFinite(value) ? { value, rest: rest.trimStart(), feet: size === UNIT_MM.ft } : null
}

/** Read a length: `412`, `41.2 cm`, `16 1/4`, `16.25"`, `1' 4 1/4"`, `350+12`. */
export function parseLength(text: string, inches: boolean): Parsed {
  const usual = inches ? MM_PER_INCH : 1
  let rest = text.trim()
  if (!rest) return no('type a length')
  let sum = 0
  while (rest) {
    const sign = SIGN.exec(rest)
    if (sign) rest = rest.slice(sign[0].length)
    const next = term(rest, usual)
    if (!next)
      return no(rest ? notA('a length', text, rest, EXAMPLES) : `nothing after the “${(sign?.[0] ?? '').trim()}”`)
    let { value } = next
    rest = next.rest
    const inchPart = next.feet && rest && !SIGN.test(rest) ? term(rest, MM_PER_INCH) : null
    if (inchPart) {
      value += inchPart.value
      rest = inchPart.rest
    }
    sum += sign && sign[1] !== '+' ? -value : value
    if (rest && !SIGN.test(rest))
      return no(
        kindOf(rest) ? notA('a length', text, rest, EXAMPLES) : `“${rest}” is left over: put + between two lengths`,
      )
  }
  return { ok: true, value: Number(sum.toFixed(9)) }
}

/** Inches as a fraction to 1/16. */
function fraction(mm: number): string {
  const parts = Math.round((Math.abs(mm) / MM_PER_INCH) * SIXTEENTHS)
  const whole = Math.floor(parts / SIXTEENTHS)
  let over = parts % SIXTEENTHS
  let under = SIXTEENTHS
  while (over && over % 2 === 0) {
    over /= 2
    under /= 2
  }
  const sign = mm < 0 && parts > 0 ? '−' : ''
  if (!over) return `${sign}${whole}`
  return whole ? `${sign}${whole} ${over}/${under}` : `${sign}${over}/${under}`
}

/** A length for reading: millimetres to 0.1, or inches to 1/16. */
export function showLength(mm: number, inches: boolean): string {
  if (inches) return `${fraction(mm)}"`
  const shown = (Math.round(mm * 10) / 10 + 0).toString()
  return shown.replace('-', '−')
}

/** The same with its unit. */
export const showLengthUnit = (mm: number, inches: boolean) =>
  inches ? showLength(mm, true) : `${showLength(mm, false)} mm`

/** A length for typing over: nothing is lost by leaving it as it is. */
export function editLength(mm: number, inches: boolean): string {
  if (!inches) return String(Number(mm.toFixed(3)))
  const exact = Math.abs((mm / MM_PER_INCH) * SIXTEENTHS - Math.round((mm / MM_PER_INCH) * SIXTEENTHS)) < 1e-6
  return exact ? fraction(mm).replace('−', '-') : String(Number((mm / MM_PER_INCH).toFixed(4)))
}

/** The exact figure behind a rounded one. */
export const exactLength = (mm: number, inches: boolean) =>
  inches ? `${(mm / MM_PER_INCH).toFixed(4)} in` : `${mm.toFixed(3)} mm`

/** What a drag snaps to, and what an arrow key moves by [mm]. */
export const roundStep = (inches: boolean) => (inches ? MM_PER_INCH / 4 : 5)
export const nudgeStep = (inches: boolean) => (inches ? MM_PER_INCH / SIXTEENTHS : 1)
