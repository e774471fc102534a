// How flat parts are laid out on the sheet, and what of them is dimensioned.
import type { FlatPart } from '../api/model'

export const PAD = { left: 104, right: 60, top: 94, bottom: 62 }
export const SAME_MM = 0.05
const MOST_SCALE = 2
const LEAST_CELL = 380
/** The largest part is drawn at least so large, where it has the room [px]. */
const READABLE = 220
/** How much of the parts inside shows under those of the shell, so that one sees there are more [px]. */
export const PEEK = 70
/** Rough width of a letter of the note [px]. */
export const LETTER = 6.4

interface Laid {
  part: FlatPart
  x: number
  y: number
  wide: number
}

/** Parts in rows, left to right, at a scale; and how high that is. */
export function inRows(parts: FlatPart[], width: number, scale: number): { laid: Laid[]; height: number } {
  const laid: Laid[] = []
  let [x, top, row] = [0, 0, 0]
  for (const part of parts) {
    const wide = Math.max(LEAST_CELL, PAD.left + part.length_mm * scale + PAD.right)
    if (x > 0 && x + wide > width) [x, top, row] = [0, top + row, 0]
    laid.push({ part, x: x + PAD.left, y: top + PAD.top + part.width_mm * scale, wide: wide - PAD.left })
    x += wide
    row = Math.max(row, PAD.top + part.width_mm * scale + PAD.bottom)
  }
  return { laid, height: top + row }
}

/** The largest scale at which all of them fit; where they would be too small to be read they run on downward, not aside. */
export function fitted(parts: FlatPart[], width: number, height: number): number {
  const room = width - PAD.left - PAD.right
  const widest = Math.min(MOST_SCALE, ...parts.map((part) => room / part.length_mm))
  const largest = Math.max(...parts.map((part) => Math.max(part.length_mm, part.width_mm)))
  const least = Math.min(widest, READABLE / largest)
  let [low, high] = [least, widest]
  for (let turn = 0; turn < 24; turn += 1) {
    const middle = (low + high) / 2
    if (inRows(parts, width, middle).height <= height) low = middle
    else high = middle
  }
  return low
}

/** A text in lines of so many letters. */
export function wrapped(text: string, letters: number): string[] {
  const lines: string[] = ['']
  for (const word of text.split(' ')) {
    const last = lines.at(-1) ?? ''
    if (last && last.length + word.length + 1 > letters) lines.push(word)
    else lines[lines.length - 1] = last ? `${last} ${word}` : word
  }
  return lines
}

/** The middle of the box round an opening: what it is marked out from. */
export function middleOf(ring: number[][]): [number, number] {
  const [us, vs] = [ring.map((spot) => spot[0] as number), ring.map((spot) => spot[1] as number)]
  return [(Math.min(...us) + Math.max(...us)) / 2, (Math.min(...vs) + Math.max(...vs)) / 2]
}

/** Distances to dimension, each once, in order, up to the far edge. */
export function marked(all: number[], far: number): number[] {
  const inside = all.filter((mm) => mm > SAME_MM && mm < far - SAME_MM).sort((a, b) => a - b)
  return [...inside.filter((mm, place) => place === 0 || mm - (inside[place - 1] as number) > SAME_MM), far]
}

/** Of distances those that have room for their figures: the first ones come first, others where nothing stands near. */
export function withRoom(
  first: number[],
  others: number[],
  px: (mm: number) => number,
  room: number,
  places: number,
): number[] {
  const more = others.filter((mm) => first.every((one) => Math.abs(one - mm) > SAME_MM))
  const isFull = first.length + more.length > places
  const kept: number[] = []
  // From the far edge back, so that it is there whatever else gives way.
  for (const mm of [...first].reverse().concat(more)) {
    const alone = kept.every((one) => Math.abs(px(one) - px(mm)) >= room)
    const asked = kept.length < first.length && first.length <= places
    if (!isFull || asked || (kept.length < places && alone)) kept.push(mm)
  }
  return kept.sort((a, b) => a - b)
}

/** Room for labels side by side: each gives way to the one before it; none goes beyond the last place, if there's room. */
export function spread(wanted: number[], room: number, last = Infinity): number[] {
  const given: number[] = []
  for (const at of wanted) given.push(Math.max(at, (given.at(-1) ?? -Infinity) + room))
  for (let place = given.length - 1, most = last; place >= 0; place -= 1, most -= room)
    given[place] = Math.min(given[place] as number, most)
  return given
}
