import { type RefObject, useEffect } from 'react'

/** A rectangle on the page [px]. */
export interface Box {
  x: number
  y: number
  width: number
  height: number
}

/** A text that may be moved: where it would like to be, what it names, how much it matters (least is most). */
export interface Movable {
  box: Box
  at: { x: number; y: number }
  priority: number
  /** Whether a line leads to it from what it names, once it stands away. */
  led: boolean
}

export interface Spot {
  dx: number
  dy: number
  /** There is no room for it anywhere near. */
  hidden: boolean
}

const AIR_PX = 2
const LEADER_FROM_PX = 16
const STEPS_PX = [0, 13, 22, 34, 48, 64, 84, 108, 136]
const WAYS = [
  [0, -1],
  [0, 1],
  [1, 0],
  [-1, 0],
  [1, -1],
  [1, 1],
  [-1, -1],
  [-1, 1],
] as const

const meet = (a: Box, b: Box, air = 0) =>
  a.x < b.x + b.width + air && b.x < a.x + a.width + air && a.y < b.y + b.height + air && b.y < a.y + a.height + air
const within = (a: Box, page: Box) =>
  a.x >= page.x && a.y >= page.y && a.x + a.width <= page.x + page.width && a.y + a.height <= page.y + page.height

/** Moves labels off each other and off what is fixed: those that matter most first, each to the nearest free spot. */
export function placed(labels: readonly Movable[], fixed: readonly Box[], page: Box): Spot[] {
  const taken = [...fixed]
  const spots: Spot[] = labels.map(() => ({ dx: 0, dy: 0, hidden: true }))
  const order = labels
    .map((_, place) => place)
    .sort((a, b) => (labels[a]?.priority ?? 0) - (labels[b]?.priority ?? 0) || a - b)
  for (const place of order) {
    const label = labels[place]
    if (!label) continue
    const spot = freeSpot(label.box, taken, page)
    if (!spot) continue
    spots[place] = { ...spot, hidden: false }
    taken.push({ ...label.box, x: label.box.x + spot.dx, y: label.box.y + spot.dy })
  }
  return spots
}

function freeSpot(box: Box, taken: readonly Box[], page: Box) {
  for (const step of STEPS_PX) {
    for (const [across, down] of WAYS) {
      // Sideways a label has to clear its own width before it is anywhere else.
      const [dx, dy] = [across * (step + (step && across ? box.width / 2 : 0)), down * step]
      const there = { ...box, x: box.x + dx, y: box.y + dy }
      if (within(there, page) && !taken.some((other) => meet(there, other, AIR_PX))) return { dx, dy }
      if (!step) break
    }
  }
  return null
}

/** From what a label names to the nearest edge of the label, once it stands away from it. */
export function leader({ box, at, led }: Movable, { dx, dy, hidden }: Spot): string {
  if (hidden || !led || Math.hypot(dx, dy) < LEADER_FROM_PX) return ''
  const x = Math.min(box.x + dx + box.width, Math.max(box.x + dx, at.x))
  const y = Math.min(box.y + dy + box.height, Math.max(box.y + dy, at.y))
  return `M${at.x} ${at.y}L${x} ${y}`
}

/** Keeps the labels of a drawing apart, whatever is drawn: texts with `data-label` give way, all others stay. */
export function useLabels(
  svg: RefObject<SVGSVGElement | null>,
  leaders: RefObject<SVGPathElement | null>,
  isThere: boolean,
) {
  useEffect(() => {
    const drawing = svg.current
    if (!drawing) return
    let frame = 0
    const arrange = () => {
      frame = 0
      part(drawing, leaders.current)
    }
    const later = () => {
      frame ||= requestAnimationFrame(arrange)
    }
    arrange()
    const watch = new MutationObserver(later)
    watch.observe(drawing, {
      subtree: true,
      childList: true,
      characterData: true,
      attributes: true,
      attributeFilter: ['x', 'y', 'data-at', 'width', 'height'],
    })
    return () => {
      watch.disconnect()
      cancelAnimationFrame(frame)
    }
  }, [svg, leaders, isThere])
}

function part(drawing: SVGSVGElement, leaders: SVGPathElement | null) {
  const movable = [...drawing.querySelectorAll<SVGTextElement>('text[data-label]')]
  movable.forEach((text) => text.removeAttribute('transform'))
  const origin = drawing.getBoundingClientRect()
  const boxOf = (element: Element): Box => {
    const { x, y, width, height } = element.getBoundingClientRect()
    return { x: x - origin.x, y: y - origin.y, width, height }
  }
  const fixed = [...drawing.querySelectorAll('text:not([data-label]), [data-mark]')].map(boxOf)
  const labels = movable.map((text): Movable => {
    const box = boxOf(text)
    const [x = box.x + box.width / 2, y = box.y + box.height / 2] = text.dataset.at?.split(' ').map(Number) ?? []
    return { box, at: { x, y }, priority: Number(text.dataset.label), led: text.dataset.at !== undefined }
  })
  const spots = placed(labels, fixed, { x: 0, y: 0, width: origin.width, height: origin.height })
  movable.forEach((text, place) => {
    const spot = spots[place]
    if (!spot) return
    if (spot.dx || spot.dy) text.setAttribute('transform', `translate(${spot.dx} ${spot.dy})`)
    text.style.visibility = spot.hidden ? 'hidden' : ''
  })
  leaders?.setAttribute(
    'd',
    labels.map((label, place) => leader(label, spots[place] ?? { dx: 0, dy: 0, hidden: true })).join(''),
  )
}
