import { Box, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { lazy, Suspense, useLayoutEffect, useRef, useState } from 'react'
import { useShallow } from 'zustand/react/shallow'
import type { Axis, Design, Shape } from '../api/model'
import { SIZE } from '../api/model'
import type { Station } from '../stations/station'
import { useUnits } from '../units/useUnits'
import { useWork } from '../work/store'
import { BayShape, isInFront, KeepOutName, KeepOutShape } from './BayShape'
import { CutLines } from './CutLines'
import { Dimension, type Editing } from './Dimension'
import { DimensionEditor } from './DimensionEditor'
import { setBaySize, setShellSize } from './edits'
import { asideOf, GapMark, gapsIn } from './GapMark'
import { useLabels } from './labels'
import { boundsOf, layOut, type Placed } from './layout'
import { PortMarks } from './PortMarks'
import { shapeOf } from './shape'
import { GhostOutline, GhostParts } from './Ghosts'
import { Remainders } from './Remainders'
import { VehicleNames, VehicleShape } from './VehicleShape'
import { FuelShape, Patterns, ShellOutline } from './shapes'

/** What of the work is drawn. */
const useDrawn = () =>
  useWork(useShallow(({ design, evaluation, pinned, trial }) => ({ design, evaluation, pinned, trial })))

const Solid = lazy(() => import('./Solid'))

/** The sheet: plan over elevation, end view beside it, the solid in the corner. The work surface of every station. */
export function TankDrawing({ station }: { station: Station }) {
  const { inks } = useTheme()
  const box = useRef<HTMLDivElement>(null)
  const svg = useRef<SVGSVGElement>(null)
  const leaders = useRef<SVGPathElement>(null)
  const [size, setSize] = useState({ width: 0, height: 0 })
  const [editing, setEditing] = useState<Editing | null>(null)
  const [large, setLarge] = useState(false)
  const { design, evaluation, pinned, trial } = useDrawn()
  const readOnly = useWork((work) => work.readOnly)

  useLayoutEffect(() => {
    const element = box.current
    if (!element) return
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height })
    })
    watch.observe(element)
    return () => watch.disconnect()
  }, [])

  const bounds = boundsOf(design, [evaluation, trial?.evaluation, pinned], station.drawing?.reach?.(design, evaluation))
  const laid = bounds && size.width > 0 ? layOut(bounds, size.width, size.height) : null
  useLabels(svg, leaders, Boolean(laid) && !large)
  return (
    <Box
      ref={box}
      component="section"
      aria-label="Drawing"
      sx={{ position: 'relative', flex: 1, minWidth: 0, minHeight: 320, background: inks.sheet, overflow: 'hidden' }}
    >
      {!laid && <EmptySheet />}
      {laid && !large && (
        <svg
          ref={svg}
          width={size.width}
          height={size.height}
          style={{ position: 'absolute', inset: 0 }}
          role="group"
          aria-label="Plan, elevation and end view"
        >
          <Patterns />
          <path ref={leaders} data-leaders fill="none" stroke={inks.quiet} strokeWidth={0.9} pointerEvents="none" />
          {laid.views.map((view) => (
            <View key={view.id} view={view} station={station} onEdit={readOnly ? undefined : setEditing} />
          ))}
        </svg>
      )}
      {laid && (
        <Suspense fallback={null}>
          <Solid
            design={design}
            evaluation={evaluation}
            large={large}
            onLarge={setLarge}
            place={large ? { x: 0, y: 0, ...size } : laid.free}
          />
        </Suspense>
      )}
      {editing && (
        <DimensionEditor key={editing.label} width={size.width} editing={editing} onDone={() => setEditing(null)} />
      )}
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
  station: Station
  onEdit: ((editing: Editing) => void) | undefined
}

const CUT_VIEWS = { elevation: ['Elevation', 'y'], end: ['End view', 'x'] } as const

/** What a view shows: a cut says where it is. */
function useTitle(view: Placed): string {
  const cuts = useWork((work) => work.evaluation?.shell?.cuts)
  const units = useUnits()
  if (view.id === 'plan') return view.title
  const [name, axis] = CUT_VIEWS[view.id]
  const at = cuts?.find((cut) => cut.axis === axis)?.at_mm
  return at === undefined ? name : `${name}, cut ${axis === 'y' ? 'A' : 'B'} at ${units.lengthUnitText(at)}`
}

/** One view: bay, shell, fuel, ports, and the layer of the station at hand. */
export function View({ view, station, onEdit }: ViewProps) {
  const { inks } = useTheme()
  const { design, evaluation, pinned, trial } = useDrawn()
  const title = useTitle(view)
  const { bay } = design
  const { drawing = {} } = station
  const shape = shapeOf(evaluation)
  const gaps = evaluation?.bay?.gaps ?? []
  const { fill, drained } = evaluation?.shell ?? {}
  const before = shapeOf(pinned)
  const then = shapeOf(trial?.evaluation)
  const keepOuts = (inFront: boolean) =>
    bay?.keep_outs
      .filter((keepOut) => (shape ? isInFront(view, keepOut, shape) : false) === inFront)
      .map((keepOut) => (
        <KeepOutShape
          key={keepOut.id}
          view={view}
          bay={bay}
          keepOut={keepOut}
          gaps={gaps}
          strong={Boolean(drawing.bayAtHand)}
          inFront={inFront}
        />
      ))
  return (
    <g data-view={view.id}>
      <text
        data-label={0}
        x={view.x0}
        y={view.y0 - view.height - (view.id === 'end' ? 14 : 18)}
        fontSize={12}
        fill={inks.quiet}
      >
        {title}
      </text>
      {bay && <BayShape view={view} bay={bay} gaps={gaps} strong={Boolean(drawing.bayAtHand)} />}
      {keepOuts(false)}
      {evaluation?.mount?.vehicle && <VehicleShape view={view} shown={evaluation.mount.vehicle} />}
      {shape && <ShellOutline view={view} shape={shape} strong={!drawing.bayAtHand} />}
      {shape && fill && <FuelShape view={view} fill={fill} shape={shape} />}
      {keepOuts(true)}
      {shape && drained && drawing.remainders && (
        <Remainders view={view} shape={shape} drained={drained} level={(fill?.slope_deg ?? 0) < 0.01} />
      )}
      {before && <GhostOutline view={view} shape={before} tone="pin" />}
      {then && <GhostOutline view={view} shape={then} tone="trial" />}
      {then && shape && <GhostParts view={view} now={shape} then={then} />}
      {drawing.gaps &&
        gapsIn(view, gaps).map((gap) => (
          <GapMark key={gap.key} view={view} gap={gap} aside={shape ? asideOf(view, shape, gap) : 0} />
        ))}
      <Dimensions view={view} design={design} shape={shape} bayAtHand={Boolean(drawing.bayAtHand)} onEdit={onEdit} />
      {shape && evaluation && (
        <PortMarks
          view={view}
          design={design}
          evaluation={evaluation}
          live={Boolean(onEdit) && Boolean(drawing.portsAtHand)}
          named={!drawing.unnamedPorts}
        />
      )}
      {drawing.Layer && (
        <Suspense fallback={null}>
          <drawing.Layer view={view} design={design} evaluation={evaluation} onEdit={onEdit} />
        </Suspense>
      )}
      {bay?.keep_outs.map((keepOut) => (
        <KeepOutName key={keepOut.id} view={view} keepOut={keepOut} />
      ))}
      {evaluation?.mount?.vehicle && <VehicleNames view={view} shown={evaluation.mount.vehicle} />}
      {shape && view.id === 'plan' && <CutLines view={view} shape={shape} />}
    </g>
  )
}

function Dimensions({
  view,
  design,
  shape,
  bayAtHand,
  onEdit,
}: Omit<ViewProps, 'station'> & { design: Design; shape: Shape | null; bayAtHand: boolean }) {
  const { bay, shell } = design
  const measured =
    shell && shape ? (shell.kind === 'box' && shell.measured === 'inside' ? shape.inner : shape.body) : null
  const foot = view.y0
  const left = view.x0
  const names = { x: 'Length', y: 'Width', z: 'Height' } as const
  const acrossHere = view.id !== 'plan'
  const upHere = view.id !== 'end'
  const size = (axis: Axis) => (measured ? measured.high[axis] - measured.low[axis] : 0)
  return (
    <g>
      {measured && shell && acrossHere && (
        <Dimension
          label={names[view.across]}
          value={size(view.across)}
          from={view.toX(measured.low[view.across])}
          to={view.toX(measured.high[view.across])}
          at={foot + 24}
          foot={foot}
          strong={!bayAtHand}
          onEdit={onEdit}
          commit={(mm) => setShellSize(view.across, mm)}
        />
      )}
      {measured && shell && upHere && (
        <Dimension
          label={names[view.up]}
          value={size(view.up)}
          from={view.toY(measured.low[view.up])}
          to={view.toY(measured.high[view.up])}
          at={left - 24}
          foot={left}
          upright
          strong={!bayAtHand}
          onEdit={onEdit}
          commit={(mm) => setShellSize(view.up, mm)}
        />
      )}
      {bay && acrossHere && (
        <Dimension
          label={`Bay ${names[view.across].toLowerCase()}`}
          value={bay[SIZE[view.across]]}
          from={view.toX(0)}
          to={view.toX(bay[SIZE[view.across]])}
          at={foot + (measured ? 48 : 26)}
          foot={foot}
          strong={bayAtHand}
          onEdit={onEdit}
          commit={(mm) => setBaySize(view.across, mm)}
        />
      )}
      {bay && upHere && (
        <Dimension
          label={`Bay ${names[view.up].toLowerCase()}`}
          value={bay[SIZE[view.up]]}
          from={view.toY(0)}
          to={view.toY(bay[SIZE[view.up]])}
          at={left - (measured ? 48 : 26)}
          foot={left}
          upright
          strong={bayAtHand}
          onEdit={onEdit}
          commit={(mm) => setBaySize(view.up, mm)}
        />
      )}
    </g>
  )
}
