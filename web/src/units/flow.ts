/** Flows by the reader's volume, an hour. */
import type { Units } from '../api/model'
import type { Parsed } from './length'
import { notA } from './quantity'
import { editVolume, parseVolume } from './volume'

const PER = /\s*\/\s*(h|hr|hour|min)\s*$/i

/** Read a flow: a volume, with or without `/h`; or with `/min`. */
export function parseFlow(text: string, units: Units): Parsed {
  const per = PER.exec(text)
  const read = parseVolume(text.replace(PER, ''), units)
  if (!read.ok)
    return text.trim()
      ? {
          ok: false,
          reason: read.reason.startsWith('say')
            ? read.reason
            : notA('a flow', text, text.replace(/^[\s\d.,]+/, ''), 'L/h, L/min, gal/h'),
        }
      : { ok: false, reason: 'type a flow' }
  return { ok: true, value: read.value * (per?.[1]?.toLowerCase() === 'min' ? 60 : 1) }
}

export const editFlow = editVolume
