import { useTheme } from '@mui/material/styles'
import type { Axis, Evaluation, Foot, Stop, Strap, StrapPath } from '../../api/model'
import type { Placed } from '../../drawing/layout'
import { MoveBody } from '../../drawing/MoveBody'
import { select, useWork } from '../../work/store'
import type { LayerProps } from '../station'
import { BearerMark } from './BearerMark'
import { changeAnchor, changeHeld, changeStrap } from './edits'
import { FillerLine } from './FillerLine'
import { LoadArrows } from './LoadArrows'
import { VehicleGrips } from './VehicleGrips'
import { Label } from '../../drawing/Label'

const GRIP_PX = 28
type Place = Record<Axis, number>

/** Straps, feet and stops with their anchors to drag; the load at hand as arrows, the weakest link lit. */
export function MountLayer({ view, design, evaluation, onEdit }: LayerProps) {
  const chosen = useWork((work) => (work.at?.kind === 'mount' ? work.at.id : null))
  const live = Boolean(onEdit)
  const { mount } = design
  const weak = weakestOf(evaluation)
  const paths = evaluation?.mount?.straps ?? []
  return (
    <g>
      {[...mount.straps].sort(atHandLast(chosen)).map((strap) => (
        <StrapMark
          key={strap.id}
          view={view}
          strap={strap}
          path={paths.find((one) => one.id === strap.id)}
          at={strap.id === chosen}
          weak={strap.id === weak}
          live={live}
        />
      ))}
      {mount.bearers.map((bearer) => (
        <BearerMark
          key={bearer.id}
          view={view}
          bearer={bearer}
          evaluation={evaluation}
          at={bearer.id === chosen}
          weak={bearer.id === weak}
          live={live}
        />
      ))}
      {(['feet', 'stops'] as const).flatMap((list) =>
        mount[list].map((held) => (
          <PointMark
            key={held.id}
            view={view}
            held={held}
            list={list}
            at={held.id === chosen}
            weak={held.id === weak}
            live={live}
          />
        )),
      )}
      {evaluation?.mount?.filler && <FillerLine view={view} filler={evaluation.mount.filler} live={live} />}
      <LoadArrows view={view} evaluation={evaluation} />
      {evaluation?.mount?.vehicle && <VehicleGrips view={view} shown={evaluation.mount.vehicle} live={live} />}
    </g>
  )
}

/** Where straps lie on one another the one at hand is on top. */
const atHandLast = (chosen: string | null) => (a: Strap, b: Strap) => Number(a.id === chosen) - Number(b.id === chosen)

/** The mount with the least reserve, where that is below what is wanted. */
function weakestOf(evaluation: Evaluation | null): string | null {
  const weak = evaluation?.findings?.filter((finding) => finding.code === 'mount.weak').map((one) => one.subject) ?? []
  const mounts = evaluation?.mount?.loads?.mounts ?? []
  return weak.sort((a, b) => reserveOf(mounts, a) - reserveOf(mounts, b))[0] ?? null
}

const reserveOf = (mounts: { id: string; links: { reserve: number }[] }[], id: string) =>
  mounts.find((one) => one.id === id)?.links[0]?.reserve ?? Infinity

interface StrapProps {
  view: Placed
  strap: Strap
  path: StrapPath | undefined
  at: boolean
  weak: boolean
  live: boolean
}

function StrapMark({ view, strap, path, at, weak, live }: StrapProps) {
  const { inks } = useTheme()
  const colour = weak || path?.problem ? inks.stop : at ? inks.hand : inks.ink
  const station: Axis = strap.across === 'y' ? 'x' : 'y'
  const seenAlong = view.across !== station && view.up !== station
  const anchors = (['low', 'high'] as const).map((end) => ({
    end,
    place: { [station]: strap.at_mm, [strap.across]: strap[end].out_mm, z: strap[end].z_mm } as Place,
  }))
  const line = path?.line ?? []
  const pick = () => select({ kind: 'mount', id: strap.id })
  if (seenAlong)
    return (
      <g data-strap={strap.id}>
        <path
          d={line.length ? `M${line.map((p) => `${view.toX(p[view.across])} ${view.toY(p[view.up])}`).join('L')}` : ''}
          fill="none"
          stroke={colour}
          strokeWidth={Math.max(1.6, strap.thickness_mm * view.scale)}
          strokeLinejoin="round"
        />
        {anchors.map(({ end, place }) => (
          <BoltMark
            key={end}
            view={view}
            place={place}
            colour={colour}
            label={`${strap.name}, ${end} anchor`}
            live={live}
            onPick={pick}
            onMove={(moved) =>
              changeAnchor(strap, end, {
                ...(moved[strap.across] === undefined ? {} : { out_mm: moved[strap.across] as number }),
                ...(moved.z === undefined ? {} : { z_mm: moved.z }),
              })
            }
          />
        ))}
      </g>
    )
  const reach = [...line, ...anchors.map((one) => one.place)]
  const other: Axis = view.across === station ? view.up : view.across
  const [low, high] = [Math.min(...reach.map((p) => p[other])), Math.max(...reach.map((p) => p[other]))]
  const half = strap.width_mm / 2
  const corner = (end: 0 | 1): Place => ({
    x: 0,
    y: 0,
    z: 0,
    [station]: strap.at_mm + (end ? half : -half),
    [other]: end ? high : low,
  })
  const [from, to] = [corner(0), corner(1)]
  const rect = {
    x: view.toX(from[view.across]),
    y: view.toY(to[view.up]),
    width: (to[view.across] - from[view.across]) * view.scale,
    height: (to[view.up] - from[view.up]) * view.scale,
  }
  return (
    <g data-strap={strap.id}>
      <rect {...rect} fill={colour} fillOpacity={at ? 0.22 : 0.12} stroke={colour} strokeWidth={1.3} />
      <Label
        rank={4}
        of={[rect.x + rect.width / 2, rect.y]}
        x={rect.x + rect.width / 2}
        y={rect.y - 6}
        textAnchor="middle"
        colour={colour}
        pointerEvents="none"
      >
        {strap.name}
      </Label>
      {live && (
        <MoveBody
          view={view}
          rect={{
            ...rect,
            x: rect.x - Math.max(0, (GRIP_PX - rect.width) / 2),
            width: Math.max(rect.width, view.across === station ? GRIP_PX : rect.width),
          }}
          label={strap.name}
          place={{ x: strap.at_mm, y: strap.at_mm, z: 0 }}
          snapsFor={() => []}
          onPick={pick}
          onMove={(moved) => moved[station] !== undefined && changeStrap(strap.id, { at_mm: moved[station] })}
        />
      )}
    </g>
  )
}

interface BoltProps {
  view: Placed
  place: Place
  colour: string
  label: string
  live: boolean
  onPick: () => void
  onMove: (place: Partial<Place>) => void
}

/** A bolted place: a hexagon with the structure hatched under it. */
function BoltMark({ view, place, colour, label, live, onPick, onMove }: BoltProps) {
  const [x, y] = [view.toX(place[view.across]), view.toY(place[view.up])]
  return (
    <g>
      <path
        d={`M${x - 9} ${y + 6}h18M${x - 7} ${y + 11}l4 -5M${x - 1} ${y + 11}l4 -5M${x + 5} ${y + 11}l4 -5`}
        stroke={colour}
        strokeWidth={1.2}
      />
      <path d={HEXAGON} transform={`translate(${x} ${y})`} fill={colour} />
      {live && (
        <MoveBody
          view={view}
          rect={{ x: x - GRIP_PX / 2, y: y - GRIP_PX / 2, width: GRIP_PX, height: GRIP_PX }}
          label={label}
          place={place}
          snapsFor={() => []}
          onPick={onPick}
          onMove={onMove}
        />
      )}
    </g>
  )
}

const HEXAGON = 'M-5 0L-2.5 -4.3L2.5 -4.3L5 0L2.5 4.3L-2.5 4.3Z'
const OUT: Record<Stop['side'], [Axis, 1 | -1]> = {
  rear: ['x', -1],
  front: ['x', 1],
  right: ['y', -1],
  left: ['y', 1],
  floor: ['z', -1],
  roof: ['z', 1],
}

interface PointProps {
  view: Placed
  held: Foot | Stop
  list: 'feet' | 'stops'
  at: boolean
  weak: boolean
  live: boolean
}

/** A foot's bolt, or a stop as a block behind its face. */
function PointMark({ view, held, list, at, weak, live }: PointProps) {
  const { inks } = useTheme()
  const colour = weak ? inks.stop : at ? inks.hand : inks.ink
  const place: Place = { x: held.x_mm, y: held.y_mm, z: held.z_mm }
  const move = (moved: Partial<Place>) =>
    changeHeld(list, held.id, Object.fromEntries(Object.entries(moved).map(([axis, mm]) => [`${axis}_mm`, mm])))
  const pick = () => select({ kind: 'mount', id: held.id })
  const common = { view, place, colour, label: held.name, live, onPick: pick, onMove: move }
  return <g data-held={held.id}>{'side' in held ? <StopMark {...common} stop={held} /> : <BoltMark {...common} />}</g>
}

/** A stop's block from its foot's far edge to its face, which is drawn heavy. */
function StopMark({ stop, view, place, colour, label, live, onPick, onMove }: BoltProps & { stop: Stop }) {
  const [axis, way] = OUT[stop.side]
  const [low, high] = reachOf(stop, axis, way)
  const rect = {
    x: view.toX(low[view.across]),
    y: view.toY(high[view.up]),
    width: (high[view.across] - low[view.across]) * view.scale,
    height: (high[view.up] - low[view.up]) * view.scale,
  }
  const [x, y] = [view.toX(place[view.across]), view.toY(place[view.up])]
  const face =
    axis === view.across ? `M${x} ${rect.y}v${rect.height}` : axis === view.up ? `M${rect.x} ${y}h${rect.width}` : ''
  return (
    <>
      <rect {...rect} fill={colour} fillOpacity={0.3} stroke={colour} strokeWidth={1.2} />
      <path d={face} stroke={colour} strokeWidth={3} />
      {live && (
        <MoveBody
          view={view}
          rect={{ x: x - GRIP_PX / 2, y: y - GRIP_PX / 2, width: GRIP_PX, height: GRIP_PX }}
          label={label}
          place={place}
          snapsFor={() => []}
          onPick={onPick}
          onMove={onMove}
        />
      )}
    </>
  )
}

/** Low and high corner of a stop's block [mm]. */
function reachOf(stop: Stop, axis: Axis, way: 1 | -1): [Place, Place] {
  const place: Place = { x: stop.x_mm, y: stop.y_mm, z: stop.z_mm }
  const ends = (one: Axis): [number, number] => {
    if (one === axis) return way > 0 ? [0, stop.base_mm] : [-stop.base_mm, 0]
    const half = one === 'z' ? stop.arm_mm : stop.wide_mm / 2
    return [-half, half]
  }
  const corner = (end: 0 | 1): Place => ({
    x: place.x + ends('x')[end],
    y: place.y + ends('y')[end],
    z: place.z + ends('z')[end],
  })
  return [corner(0), corner(1)]
}
