/** Bores: a length, or the dash size of a hose. */
import { parseLength, type Parsed } from './length'
import TABLE from './quantities.json'

const BORES: Record<string, number> = TABLE.dash_bores_mm
const DASH = /^\s*[-−](\d{1,2})\s*$/

/** Read `8 mm`, `3/8`, or `-8`: the bore that a hose of that dash size has at least. */
export function parseBore(text: string, inches: boolean): Parsed {
  const dash = DASH.exec(text)?.[1]
  if (!dash) return parseLength(text, inches)
  const value = BORES[dash]
  if (value !== undefined) return { ok: true, value }
  return { ok: false, reason: `there is no dash size ${dash}: ${Object.keys(BORES).join(', ')}` }
}
