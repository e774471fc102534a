import { Alert, Box, Button, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import * as declared from '../../api/declared'
import { LengthField, QuantityField, ShareField } from '../../fields/fields'
import { Papers } from '../../papers/Papers'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'
import { WordsField } from '../../fields/WordsField'
import { AddPart } from './AddPart'
import { CellFuels } from './CellFuels'
import { addMode, join, ownModes, setLines } from './edits'
import { Layouts } from './Layouts'
import { LinePartRow } from './LinePartRow'
import { ModeFigures } from './ModeFigures'
import { ModeRow } from './ModeRow'
import { portNamed } from './names'
import { OldThings } from './OldThings'
import { RunRow } from './RunRow'
import { drawFrom, useLinesView } from './view'

/** The path from pickup to engine and back: parts, runs, modes. */
export function LinesStation({ findings }: { findings: ReactNode }) {
  const lines = useWork((work) => work.design.lines)
  const readOnly = useWork((work) => work.readOnly)
  const shaped = useWork((work) => Boolean(work.evaluation?.shell?.geometry))
  if (!shaped) return <Typography variant="body2">No tank to draw from yet: give it a shape at Shell first.</Typography>
  const isEmpty = !lines.parts.length && !lines.runs.length
  return (
    <>
      {isEmpty && (
        <>
          <Typography variant="body2">
            Press a layout: it is drawn between tank and engine with this design’s figures. Or add parts from the
            library, then press a ring on one and a ring on another: a hose joins them.
          </Typography>
          <Layouts />
        </>
      )}
      <Joining />
      {!isEmpty && <ModeFigures />}
      {findings}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <AddPart readOnly={readOnly} />
        <TankPorts readOnly={readOnly} />
      </Box>
      {lines.parts.map((part, place) => (
        <LinePartRow key={part.id} part={part} place={place} readOnly={readOnly} />
      ))}
      {lines.runs.length > 0 && <Typography variant="h3">Hoses and tubes</Typography>}
      {lines.runs.map((run, place) => (
        <RunRow key={run.id} run={run} place={place} readOnly={readOnly} />
      ))}
      {!isEmpty && (
        <Folded title="Layouts">
          <Layouts />
        </Folded>
      )}
      <Folded title="Running modes">
        <Modes readOnly={readOnly} />
      </Folded>
      <Folded title="Fuel of each cell">
        <CellFuels readOnly={readOnly} />
      </Folded>
      <Folded title={lines.old.length ? `Old lines and wires: ${lines.old.length}` : 'Old lines and wires'}>
        <OldThings readOnly={readOnly} />
      </Folded>
      <Folded title="Approval, level, taking the tank out">
        <LengthField
          label="Tank out before hoses are undone"
          value={lines.tank_off_mm || null}
          emptyText="not at all"
          hint="its hoses are as long as that asks"
          path="lines.tank_off_mm"
          disabled={readOnly}
          onCommit={(mm) => setLines({ tank_off_mm: mm ?? 0 })}
        />
        <WordsField
          mayBeEmpty
          label="Approval asked of every hose"
          value={lines.approval}
          most={declared.Lines.most.approval}
          disabled={readOnly}
          onCommit={(approval) => setLines({ approval })}
        />
        <ShareField
          label="Level, of the rated capacity"
          value={lines.level}
          path="lines.level"
          disabled={readOnly}
          onCommit={(level) => level !== null && setLines({ level })}
        />
        <QuantityField
          label="Reid vapour pressure"
          of="kpa"
          value={lines.reid_kpa ?? null}
          emptyText="the most that is usual in summer"
          path="lines.reid_kpa"
          disabled={readOnly}
          onCommit={(reid_kpa) => setLines({ reid_kpa })}
        />
      </Folded>
      {!isEmpty && (
        <Folded title="Download">
          <Papers station="lines" />
        </Folded>
      )}
    </>
  )
}

/** Where a hose is being drawn from, and how to leave it. */
function Joining() {
  const from = useLinesView((view) => view.from)
  const lines = useWork((work) => work.design.lines)
  const ports = useWork((work) => work.design.ports)
  if (!from) return null
  return (
    <Alert
      severity="info"
      action={
        <Button size="small" onClick={() => drawFrom(null)}>
          Cancel
        </Button>
      }
    >
      From {portNamed(lines, from, ports)}: press the ring that the hose goes to.
    </Alert>
  )
}

/** Ports of the tank that nothing is joined to yet: a hose begins or ends there. */
function TankPorts({ readOnly }: { readOnly: boolean }) {
  const { lines, ports } = useWork((work) => work.design)
  const from = useLinesView((view) => view.from)
  const joined = new Set(
    lines.runs.flatMap((run) => [run.start, run.end]).flatMap((end) => (end.part === 'tank' ? [end.port] : [])),
  )
  const hung = new Set(lines.parts.map((part) => part.hangs_in))
  const open = ports.filter((port) => !port.capped && !joined.has(port.id) && !hung.has(port.id) && LED.has(port.role))
  return open.map((port) => (
    <Button
      key={port.id}
      variant="outlined"
      disabled={readOnly}
      onClick={() => joinTank(port.id, from)}
    >{`${from ? 'To' : 'From'} ${port.name}`}</Button>
  ))
}

const LED = new Set(['pickup', 'return', 'transfer', 'overflow', 'spare', 'fitting', 'drain'])

function joinTank(port: string, from: ReturnType<typeof useLinesView.getState>['from']) {
  const at = { part: 'tank', port }
  if (from) join(from, at)
  else drawFrom(at)
}

function Modes({ readOnly }: { readOnly: boolean }) {
  const modes = useWork((work) => work.design.lines.modes)
  const full = modes.length >= declared.Lines.most.modes
  if (!modes.length)
    return (
      <>
        <Typography variant="body2">
          The usual modes of the brief’s cases. Make them this design’s own to change their figures.
        </Typography>
        <Button variant="outlined" disabled={readOnly} onClick={ownModes}>
          Change these modes
        </Button>
      </>
    )
  return (
    <>
      {modes.map((mode, place) => (
        <ModeRow key={mode.id} mode={mode} place={place} readOnly={readOnly} />
      ))}
      <Button variant="outlined" disabled={readOnly || full} onClick={addMode}>
        Add a mode
      </Button>
      <Button disabled={readOnly} onClick={() => setLines({ modes: [] })}>
        Set back to the usual modes
      </Button>
    </>
  )
}
