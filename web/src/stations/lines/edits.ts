import * as declared from '../../api/declared'
import type { Axis, LineComponent, LinePart, LineRun, Lines, Passing, RunningMode } from '../../api/model'
import { freshId, freshName } from '../../work/naming'
import { change, select, useWork } from '../../work/store'
import { type At, drawFrom } from './view'

export const TANK = 'tank'
export const setLines = (part: Partial<Lines>) =>
  change((design) => ({ ...design, lines: { ...design.lines, ...part } }))

type Lists = { parts: LinePart; runs: LineRun; modes: RunningMode }

/** Change one part, run or mode. */
export const changeOne = <N extends keyof Lists>(list: N, id: string, part: Partial<Lists[N]>) =>
  change((design) => {
    const all = design.lines[list] as Lists[N][]
    return {
      ...design,
      lines: { ...design.lines, [list]: all.map((one) => (one.id === id ? { ...one, ...part } : one)) },
    }
  })

export const changePart = (id: string, part: Partial<LinePart>) => changeOne('parts', id, part)
export const changeRun = (id: string, part: Partial<LineRun>) => changeOne('runs', id, part)

/** Change what a part does; its kind stays. */
export const changeDoes = (part: LinePart, does: object) =>
  changePart(part.id, { does: { ...part.does, ...does } as LinePart['does'] })

/** A part is gone with the runs that were joined to it. */
export function removePart(id: string) {
  select(null)
  change((design) => ({
    ...design,
    lines: {
      ...design.lines,
      parts: design.lines.parts.filter((one) => one.id !== id),
      runs: design.lines.runs.filter((run) => run.start.part !== id && run.end.part !== id),
    },
  }))
}

export function removeOne(list: 'runs' | 'modes', id: string) {
  if (list === 'runs') select(null)
  change((design) => ({
    ...design,
    lines: { ...design.lines, [list]: design.lines[list].filter((one) => one.id !== id) },
  }))
}

const STEP_MM = 200

/** A part of the library, ahead of the last one; a first one over the tank's front. */
export function addPart(component: LineComponent) {
  const { design, evaluation } = useWork.getState()
  const last = design.lines.parts.filter((one) => !one.hangs_in).at(-1)
  const box = evaluation?.shell?.geometry?.overall
  const from = last
    ? { x: last.x_mm, y: last.y_mm, z: last.z_mm }
    : box
      ? { x: box.high.x, y: (box.low.y + box.high.y) / 2, z: box.high.z }
      : { x: 0, y: 0, z: 0 }
  const named = freshName(component.does.kind, design.lines.parts)
  const { name, ...rest } = component
  const part: LinePart = {
    ...declared.LinePart.defaults,
    ...rest,
    ...named,
    part: name,
    x_mm: Math.round(from.x + STEP_MM),
    y_mm: Math.round(from.y),
    z_mm: Math.round(from.z),
  }
  setLines({ parts: [...design.lines.parts, part] })
  select({ kind: 'line part', id: named.id })
}

/** Another part of the library in the same place, under the same name. */
export function fitComponent(part: LinePart, component: LineComponent) {
  const { name, ...rest } = component
  changePart(part.id, { ...rest, part: name })
}

export const sameAt = (one: At | null, other: At) => one?.part === other.part && one.port === other.port

/** Which run is joined there. */
export const runAt = ({ runs }: Lines, at: At) => runs.find((run) => sameAt(run.start, at) || sameAt(run.end, at))

/** A hose between two connections. */
export function join(from: At, to: At) {
  drawFrom(null)
  if (sameAt(from, to)) return
  const { lines } = useWork.getState().design
  const reference = [from.port, to.port].some((port) => port === 'reference' || port === 'manifold')
  const last = lines.runs.at(-1)
  const named = freshName(reference ? 'reference hose' : 'hose', lines.runs)
  const run: LineRun = {
    ...declared.LineRun.defaults,
    ...(last && !reference
      ? { hose: last.hose, bore_mm: last.bore_mm, rated_kpa: last.rated_kpa, approval: last.approval }
      : {}),
    ...(reference ? { bore_mm: REFERENCE_BORE_MM } : {}),
    ...named,
    start: { ...declared.RunEnd.defaults, ...from },
    end: { ...declared.RunEnd.defaults, ...to },
  }
  setLines({ runs: [...lines.runs, run] })
  select({ kind: 'run', id: named.id })
}

const REFERENCE_BORE_MM = 6

/** Pressed once a run begins there, pressed at another connection it ends there. */
export function pressConnection(at: At, from: At | null) {
  if (from) join(from, at)
  else drawFrom(at)
}

/** One more corner in the middle of a run's longest straight. */
export function addCorner(run: LineRun, way: readonly Record<Axis, number>[]) {
  let place = 0
  let longest = -1
  for (let n = 0; n + 1 < way.length; n += 1) {
    const [a, b] = [way[n], way[n + 1]]
    if (!a || !b) continue
    const long = Math.hypot(b.x - a.x, b.y - a.y, b.z - a.z)
    if (long > longest) [longest, place] = [long, n]
  }
  const [a, b] = [way[place], way[place + 1]]
  if (!a || !b) return
  const middle = {
    x_mm: Math.round((a.x + b.x) / 2),
    y_mm: Math.round((a.y + b.y) / 2),
    z_mm: Math.round((a.z + b.z) / 2),
  }
  changeRun(run.id, { corners: [...run.corners.slice(0, place), middle, ...run.corners.slice(place)] })
}

/** How a run gets through a sheet that has no hole for it; null: not at all. */
export function passThrough(run: LineRun, panel: string, passing: Partial<Passing> | null) {
  const known = run.passes.find((one) => one.panel === panel)
  const others = run.passes.filter((one) => one !== known)
  const own = passing && { ...declared.Passing.defaults, ...known, ...passing, panel }
  changeRun(run.id, { passes: own ? [...others, own] : others })
}

/** The modes that are shown become the design's own, to be changed. */
export function ownModes() {
  const { design, evaluation } = useWork.getState()
  const shown = evaluation?.lines?.modes ?? []
  const cases = design.brief.cases
  setLines({
    modes: shown.map((mode) => {
      const named = cases.find((one) => one.name === mode.case)
      return {
        ...declared.RunningMode.defaults,
        id: mode.id,
        name: mode.name,
        case: named?.id ?? null,
        draw: mode.share ?? 1,
        draw_l_per_h: mode.share === null ? mode.draws_lph : null,
        fuel: mode.fuel,
        manifold_kpa: mode.manifold_kpa,
        voltage_v: mode.voltage_v,
        engine_rpm: mode.engine_rpm,
        fuel_c: mode.fuel_c,
        altitude_m: mode.altitude_m,
        still: mode.still,
        failure: mode.failure,
      }
    }),
  })
}

export function addMode() {
  const { lines } = useWork.getState().design
  const last = lines.modes.at(-1)
  const id = freshId('mode', lines.modes)
  const mode: RunningMode = { ...declared.RunningMode.defaults, ...last, id, name: `Mode ${lines.modes.length + 1}` }
  setLines({ modes: [...lines.modes, mode] })
}
