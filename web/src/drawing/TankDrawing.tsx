import { Box, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { lazy, Suspense, useLayoutEffect, useRef, useState } from 'react'
import type { Axis, Bay, Design, Evaluation } from '../api/model'
import { PLACE, SIZE } from '../api/model'
import { useUnits } from '../units/useUnits'
import { select, useWork } from '../work/store'
import { BayShape, isInFront, KeepOutShape } from './BayShape'
import { Dimension, type Editing } from './Dimension'
import { DimensionEditor } from './DimensionEditor'
import { CutLines } from './CutLines'
import { changeKeepOut, moveShell, setBaySize, setShellSize } from './edits'
import { bayFaces, shellFaces } from './faces'
import { FeatureMarks } from './FeatureMarks'
import { asideOf, GapMark, gapsIn } from './GapMark'
import { FaceHandles } from './Handles'
import { boundsOf, layOut, type Placed } from './layout'
import { boxOf } from './keepOuts'
import { MoveBody } from './MoveBody'
import { OpeningMarks } from './OpeningMarks'
import { PortMarks } from './PortMarks'
import { ProfileHandles } from './ProfileHandles'
import { SenderMarks } from './SenderMarks'
import { boxRect, FuelShape, GhostOutline, GhostParts, Patterns, Remainders, ShellOutline } from './shapes'
import { shellSnaps } from './snaps'

const Solid = lazy(() => import('./Solid'))

/** The sheet: plan over elevation, end view beside it, the solid in the corner. The work surface of every station. */
export function TankDrawing({ station }: { station: string }) {
  const { inks } = useTheme()
  const box = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState({ width: 0, height: 0 })
  const [editing, setEditing] = useState<Editing | null>(null)
  const [large, setLarge] = useState(false)
  const { design, evaluation, pinned, trial, readOnly } = useWork()

  useLayoutEffect(() => {
    const element = box.current
    if (!element) return
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height })
    })
    watch.observe(element)
    return () => watch.disconnect()
  }, [])

  const bounds = boundsOf(design, [evaluation, trial?.evaluation, pinned])
  const laid = bounds && size.width > 0 ? layOut(bounds, size.width, size.height) : null
  return (
    <Box ref={box} component="section" aria-label="Drawing" sx={{ position: 'relative', flex: 1, minWidth: 0, minHeight: 320, background: inks.sheet, overflow: 'hidden' }}>
      {!laid && <EmptySheet />}
      {laid && !large && (
        <svg width={size.width} height={size.height} style={{ position: 'absolute', inset: 0 }} role="group" aria-label="Plan, elevation and end view">
          <Patterns />
          {laid.views.map((view) => (
            <View key={view.id} view={view} station={station} onEdit={readOnly ? undefined : setEditing} />
          ))}
        </svg>
      )}
      {laid && (
        <Suspense fallback={null}>
          <Solid design={design} evaluation={evaluation} large={large} onLarge={setLarge} place={large ? { x: 0, y: 0, ...size } : laid.free} />
        </Suspense>
      )}
      {editing && <DimensionEditor key={editing.label} width={size.width} editing={editing} onDone={() => setEditing(null)} />}
    </Box>
  )
}

function EmptySheet() {
  return (
    <Box sx={{ position: 'absolute', inset: 0, display: 'grid', placeContent: 'center', textAlign: 'center', p: 4 }}>
      <Typography variant="h2">Nothing to draw yet</Typography>
      <Typography color="textSecondary" sx={{ maxWidth: '32em', mt: 1 }}>
        Type the space you measured at Bay and fit a tank to it in one press, or type the tank’s own sizes at Shell.
      </Typography>
    </Box>
  )
}

interface ViewProps {
  view: Placed
  station: string
  onEdit: ((editing: Editing) => void) | undefined
}

const CUT_VIEWS = { elevation: ['Elevation', 'y'], end: ['End view', 'x'] } as const

/** What a view shows: a cut says where it is. */
function useTitle(view: Placed): string {
  const cuts = useWork((work) => work.evaluation?.geometry?.cuts)
  const units = useUnits()
  if (view.id === 'plan') return view.title
  const [name, axis] = CUT_VIEWS[view.id]
  const at = cuts?.find((cut) => cut.axis === axis)?.at_mm
  return at === undefined ? name : `${name}, cut ${axis === 'y' ? 'A' : 'B'} at ${units.lengthUnitText(at)}`
}

function View({ view, station, onEdit }: ViewProps) {
  const { inks } = useTheme()
  const { design, evaluation, pinned, trial } = useWork()
  const title = useTitle(view)
  const { bay } = design
  const shape = evaluation?.geometry
  const gaps = evaluation?.gaps ?? []
  const bayAtHand = station === 'bay'
  const keepOuts = (inFront: boolean) =>
    bay?.keep_outs
      .filter((keepOut) => (shape ? isInFront(view, keepOut, shape) : false) === inFront)
      .map((keepOut) => <KeepOutShape key={keepOut.id} view={view} bay={bay} keepOut={keepOut} gaps={gaps} strong={bayAtHand} inFront={inFront} />)
  return (
    <g data-view={view.id}>
      <text x={view.x0} y={view.y0 - view.height - (view.id === 'end' ? 14 : 18)} fontSize={12} fill={inks.quiet}>
        {title}
      </text>
      {bay && <BayShape view={view} bay={bay} gaps={gaps} strong={bayAtHand} />}
      {keepOuts(false)}
      {shape && (
        <>
          <ShellOutline view={view} shape={shape} strong={!bayAtHand} />
          {evaluation.fill && <FuelShape view={view} fill={evaluation.fill} shape={shape} />}
          {(station === 'shell' || station === 'ports') && <Remainders view={view} shape={shape} drained={evaluation.drained} level={(evaluation.fill?.slope_deg ?? 0) < 0.01} />}
        </>
      )}
      {keepOuts(true)}
      {pinned?.geometry && <GhostOutline view={view} shape={pinned.geometry} tone="pin" />}
      {trial?.evaluation?.geometry && <GhostOutline view={view} shape={trial.evaluation.geometry} tone="trial" />}
      {trial?.evaluation?.geometry && shape && <GhostParts view={view} now={shape} then={trial.evaluation.geometry} />}
      {(bayAtHand || station === 'shell') && gapsIn(view, gaps).map((gap) => <GapMark key={gap.key} view={view} gap={gap} aside={shape ? asideOf(view, shape, gap) : 0} />)}
      <Dimensions view={view} design={design} evaluation={evaluation} station={station} onEdit={onEdit} />
      {onEdit && <Grips view={view} design={design} evaluation={evaluation} station={station} onEdit={onEdit} />}
      {shape && evaluation && <PortMarks view={view} design={design} evaluation={evaluation} live={Boolean(onEdit) && station === 'ports'} named={NAMED.includes(station)} />}
      {evaluation && station === 'gauge' && <SenderMarks view={view} senders={design.gauge.senders} evaluation={evaluation} live={Boolean(onEdit)} />}
      {shape && view.id === 'plan' && <CutLines view={view} shape={shape} />}
    </g>
  )
}

function Dimensions({ view, design, evaluation, station, onEdit }: ViewProps & { design: Design; evaluation: Evaluation | null }) {
  const { bay, shell } = design
  const shape = evaluation?.geometry
  const measured = shell && shape ? (shell.kind === 'box' && shell.measured === 'inside' ? shape.inner : shape.body) : null
  const foot = view.y0
  const left = view.x0
  const names = { x: 'Length', y: 'Width', z: 'Height' } as const
  const acrossHere = view.id !== 'plan'
  const upHere = view.id !== 'end'
  const bayStrong = station === 'bay'
  const size = (axis: Axis) => (measured ? measured.high[axis] - measured.low[axis] : 0)
  return (
    <g>
      {measured && shell && acrossHere && (
        <Dimension label={names[view.across]} value={size(view.across)} from={view.toX(measured.low[view.across])} to={view.toX(measured.high[view.across])} at={foot + 24} foot={foot} strong={!bayStrong} onEdit={onEdit} commit={(mm) => setShellSize(view.across, mm)} />
      )}
      {measured && shell && upHere && (
        <Dimension label={names[view.up]} value={size(view.up)} from={view.toY(measured.low[view.up])} to={view.toY(measured.high[view.up])} at={left - 24} foot={left} upright strong={!bayStrong} onEdit={onEdit} commit={(mm) => setShellSize(view.up, mm)} />
      )}
      {bay && acrossHere && (
        <Dimension label={`Bay ${names[view.across].toLowerCase()}`} value={bay[SIZE[view.across]]} from={view.toX(0)} to={view.toX(bay[SIZE[view.across]])} at={foot + (measured ? 48 : 26)} foot={foot} strong={bayStrong} onEdit={onEdit} commit={(mm) => setBaySize(view.across, mm)} />
      )}
      {bay && upHere && (
        <Dimension label={`Bay ${names[view.up].toLowerCase()}`} value={bay[SIZE[view.up]]} from={view.toY(0)} to={view.toY(bay[SIZE[view.up]])} at={left - (measured ? 48 : 26)} foot={left} upright strong={bayStrong} onEdit={onEdit} commit={(mm) => setBaySize(view.up, mm)} />
      )}
    </g>
  )
}

/** Where ports have their names beside them: elsewhere they are in the way of what is worked on. */
const NAMED: readonly string[] = ['brief', 'inside', 'ports', 'slosh', 'bench', 'sheet']
const STANDING = ['baffle', 'pot'] as const
const SHAPING = ['well', 'sump', 'relief', 'roof step', 'partition'] as const

interface GripsProps {
  view: Placed
  station: string
  design: Design
  evaluation: Evaluation | null
  onEdit: (editing: Editing) => void
}

function Grips({ view, design, evaluation, station, onEdit }: GripsProps) {
  if (station === 'bay' && design.bay) return <BayGrips view={view} bay={design.bay} />
  if (!evaluation?.geometry || !design.shell) return null
  if (station === 'inside') {
    return (
      <g>
        <FeatureMarks view={view} design={design} evaluation={evaluation} kinds={STANDING} onEdit={onEdit} />
        <OpeningMarks view={view} design={design} evaluation={evaluation} />
      </g>
    )
  }
  if (station !== 'shell') return null
  return <ShellGrips view={view} design={design} evaluation={evaluation} onEdit={onEdit} />
}

function BayGrips({ view, bay }: { view: Placed; bay: Bay }) {
  const rect = { x: view.toX(0), y: view.toY(bay[SIZE[view.up]]), width: bay[SIZE[view.across]] * view.scale, height: bay[SIZE[view.up]] * view.scale }
  return (
    <g>
      <FaceHandles view={view} rect={rect} faces={bayFaces(bay)} />
      {bay.keep_outs.map((k) => {
        const box = boxOf(k)
        if (!box || k.kind === 'slope') return null
        return (
          <MoveBody
            key={k.id}
            view={view}
            rect={boxRect(view, box)}
            label={k.name}
            place={{ x: k.x_mm, y: k.y_mm, z: k.z_mm }}
            snapsFor={(axis) => {
              const off = k[PLACE[axis]] - box.low[axis]
              return [
                { at: off, why: '' },
                { at: bay[SIZE[axis]] - (box.high[axis] - box.low[axis]) + off, why: '' },
              ]
            }}
            onMove={(place) => changeKeepOut(k.id, Object.fromEntries(Object.entries(place).map(([axis, mm]) => [PLACE[axis as 'x'], mm])))}
          />
        )
      })}
    </g>
  )
}

function ShellGrips({ view, design, evaluation, onEdit }: Omit<GripsProps, 'station' | 'evaluation'> & { evaluation: Evaluation }) {
  const { bay, shell } = design
  const shape = evaluation.geometry
  if (!shape || !shell) return null
  const outside = (axis: Axis) => shape.body.high[axis] - shape.body.low[axis]
  const off = (axis: Axis) => shell[PLACE[axis]] - shape.body.low[axis]
  const profileHere = shell.kind === 'profile' && view.up === 'z' && view.across !== shell.wrap_axis
  return (
    <g>
      <MoveBody
        view={view}
        rect={boxRect(view, shape.body)}
        label="tank"
        place={{ x: shell.x_mm, y: shell.y_mm, z: shell.z_mm }}
        snapsFor={(axis) =>
          [
            ...shellSnaps(bay, evaluation, axis, false),
            ...shellSnaps(bay, evaluation, axis, true).map((snap) => ({ ...snap, at: snap.at - outside(axis) })),
            ...(bay ? [{ at: (bay[SIZE[axis]] - outside(axis)) / 2, why: 'in the middle' }] : []),
          ].map((snap) => ({ ...snap, at: snap.at + off(axis) }))
        }
        onMove={moveShell}
        onPick={() => select(null)}
      />
      <FaceHandles view={view} rect={boxRect(view, shape.body)} faces={shellFaces(design, evaluation)} />
      <FeatureMarks view={view} design={design} evaluation={evaluation} kinds={SHAPING} onEdit={onEdit} />
      {profileHere && <ProfileHandles view={view} shell={shell} onEdit={onEdit} />}
    </g>
  )
}
