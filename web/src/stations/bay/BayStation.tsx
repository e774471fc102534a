import { Alert, Box, Button, TextField, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { type ReactNode, useState } from 'react'
import type { Bay, Clearance, KeepOut } from '../../api/model'
import { changeKeepOut } from '../../drawing/faces'
import { LengthField } from '../../fields/fields'
import { applyPatch, change, useFault, useWork } from '../../work/store'
import { usePrice } from '../../work/Findings'
import { patched, same } from '../../work/patch'
import { Folded } from '../Folded'
import { ClearanceFields } from './ClearanceFields'

const SIDES = ['rear', 'front', 'right', 'left', 'floor', 'roof'] as const
type Side = (typeof SIDES)[number]

const USUAL_SIDES: Record<Side, Clearance> = {
  rear: { kind: 'hard metal', mm: null },
  front: { kind: 'hard metal', mm: null },
  right: { kind: 'hard metal', mm: null },
  left: { kind: 'hard metal', mm: null },
  floor: { kind: 'pad-mounted face', mm: null },
  roof: { kind: 'cover or body skin', mm: null },
}

const setBay = (part: Partial<Bay>) => change((design) => (design.bay ? { ...design, bay: { ...design.bay, ...part } } : design))

export function BayStation({ findings }: { findings: ReactNode }) {
  const bay = useWork((work) => work.design.bay)
  return bay ? <Measured bay={bay} findings={findings} /> : <FirstSizes />
}

/** Nothing measured yet: three sizes make the bay. */
function FirstSizes() {
  const readOnly = useWork((work) => work.readOnly)
  const [sizes, setSizes] = useState<{ length: number | null; width: number | null; height: number | null }>({ length: null, width: null, height: null })
  const next = (part: Partial<typeof sizes>) => {
    const all = { ...sizes, ...part }
    setSizes(all)
    if (all.length === null || all.width === null || all.height === null) return
    const bay: Bay = { datum: 'rear, right, lower corner', length_mm: all.length, width_mm: all.width, height_mm: all.height, sides: USUAL_SIDES, keep_outs: [] }
    change((design) => ({ ...design, bay }))
  }
  const faults = [useFault('bay.length_mm'), useFault('bay.width_mm'), useFault('bay.height_mm')].filter(Boolean)
  return (
    <>
      <Typography variant="body2">Measure the space and type its three sizes. Then add what the tank must stay clear of.</Typography>
      <LengthField label="Length, rear to front" value={sizes.length} onCommit={(length) => next({ length })} disabled={readOnly} />
      <LengthField label="Width, right to left" value={sizes.width} onCommit={(width) => next({ width })} disabled={readOnly} />
      <LengthField label="Height, floor to roof" value={sizes.height} onCommit={(height) => next({ height })} disabled={readOnly} />
      {faults.map((fault) => (
        <Alert key={fault} severity="error">
          {fault}
        </Alert>
      ))}
    </>
  )
}

function Measured({ bay, findings }: { bay: Bay; findings: ReactNode }) {
  const readOnly = useWork((work) => work.readOnly)
  const size = (name: 'length_mm' | 'width_mm' | 'height_mm') => (value: number | null) => value !== null && setBay({ [name]: value })
  const keepOuts = bay.keep_outs ?? []
  return (
    <>
      <LengthField label="Length, rear to front" value={bay.length_mm} onCommit={size('length_mm')} fault={useFault('bay.length_mm')} disabled={readOnly} />
      <LengthField label="Width, right to left" value={bay.width_mm} onCommit={size('width_mm')} fault={useFault('bay.width_mm')} disabled={readOnly} />
      <LengthField label="Height, floor to roof" value={bay.height_mm} onCommit={size('height_mm')} fault={useFault('bay.height_mm')} disabled={readOnly} />
      <FitButton />
      {findings}
      <Typography variant="h2">Keep-outs</Typography>
      {keepOuts.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          None yet. Add the exhaust, a shaft, a frame rail: whatever shares the space.
        </Typography>
      )}
      {keepOuts.map((keepOut, place) => (
        <KeepOutFields key={keepOut.id} keepOut={keepOut} place={place} bay={bay} readOnly={readOnly} />
      ))}
      <Button variant="outlined" disabled={readOnly || keepOuts.length >= 40} onClick={() => setBay({ keep_outs: [...keepOuts, freshKeepOut(bay)] })}>
        Add a keep-out
      </Button>
      <Folded title="Datum and clearance of each side">
        <Datum key={bay.datum} value={bay.datum ?? ''} disabled={readOnly} />
        {SIDES.map((side) => (
          <ClearanceFields
            key={side}
            title={side}
            clearance={bay.sides?.[side] ?? USUAL_SIDES[side]}
            path={`bay.sides.${side}.mm`}
            disabled={readOnly}
            onChange={(clearance) => setBay({ sides: { ...USUAL_SIDES, ...bay.sides, [side]: clearance } })}
          />
        ))}
      </Folded>
    </>
  )
}

/** One press: the largest box that clears everything. */
export function FitButton() {
  const fit = useWork((work) => work.evaluation?.fit ?? null)
  const readOnly = useWork((work) => work.readOnly)
  const bay = useWork((work) => work.design.bay)
  const waiting = useWork((work) => work.evaluated !== work.design)
  const price = usePrice(fit?.change ?? null)
  const moved = useWork((work) => fit !== null && !same(patched(work.design, fit.patch).shell, work.design.shell))
  const words = moved ? price || 'The largest box that clears everything' : 'It is as large as the bay allows.'
  return (
    <Box>
      <Button fullWidth variant="contained" disabled={!fit || readOnly || waiting} onClick={() => fit && applyPatch(fit.patch)}>
        Fit a box to the bay
      </Button>
      <Typography variant="body2" color="textSecondary" sx={{ mt: 0.5 }}>
        {!bay ? 'Type the bay’s sizes first, at Bay.' : fit ? words : waiting ? '' : 'No box of this metal and thickness clears everything.'}
      </Typography>
    </Box>
  )
}

function Datum({ value, disabled }: { value: string; disabled: boolean }) {
  const [text, setText] = useState(value)
  return (
    <TextField label="Datum" value={text} disabled={disabled} helperText="Where all measuring starts: x forward, y left, z up from here" onChange={(event) => setText(event.target.value.slice(0, 80))} onBlur={() => text.trim() && setBay({ datum: text.trim() })} />
  )
}

function freshKeepOut(bay: Bay): KeepOut {
  const taken = new Set((bay.keep_outs ?? []).map((item) => item.id))
  let number = 1
  while (taken.has(`keep-out-${number}`)) number += 1
  const third = (mm: number) => Math.max(1, Math.round(mm / 40) * 10)
  return { id: `keep-out-${number}`, name: `keep-out ${number}`, x_mm: 0, y_mm: 0, z_mm: 0, length_mm: third(bay.length_mm), width_mm: third(bay.width_mm), height_mm: third(bay.height_mm), clearance: { kind: 'hard metal', mm: null } }
}

function KeepOutFields({ keepOut, place, bay, readOnly }: { keepOut: KeepOut; place: number; bay: Bay; readOnly: boolean }) {
  const { inks } = useTheme()
  const [name, setName] = useState(keepOut.name)
  const path = `bay.keep_outs.${place}`
  const set = (field: keyof KeepOut) => (value: number | null) => value !== null && changeKeepOut(keepOut.id, { [field]: value })
  const field = (label: string, key: 'length_mm' | 'width_mm' | 'height_mm' | 'x_mm' | 'y_mm' | 'z_mm') => <KeepOutLength label={label} value={keepOut[key]} path={`${path}.${key}`} onCommit={set(key)} disabled={readOnly} />
  return (
    <Box component="fieldset" sx={{ border: `1px solid ${inks.line}`, m: 0, p: 1.5, display: 'flex', flexDirection: 'column', gap: 1.5 }}>
      <legend style={{ fontSize: 12, color: inks.quiet }}>{keepOut.name}</legend>
      <TextField label="Name" value={name} disabled={readOnly} onChange={(event) => setName(event.target.value.slice(0, 80))} onBlur={() => (name.trim() ? changeKeepOut(keepOut.id, { name: name.trim() }) : setName(keepOut.name))} />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        {field('Length', 'length_mm')}
        {field('From rear', 'x_mm')}
        {field('Width', 'width_mm')}
        {field('From right', 'y_mm')}
        {field('Height', 'height_mm')}
        {field('From floor', 'z_mm')}
      </Box>
      <ClearanceFields title="What it is" clearance={keepOut.clearance ?? { kind: 'hard metal', mm: null }} path={`${path}.clearance.mm`} disabled={readOnly} onChange={(clearance) => changeKeepOut(keepOut.id, { clearance })} />
      <Button disabled={readOnly} onClick={() => setBay({ keep_outs: (bay.keep_outs ?? []).filter((item) => item.id !== keepOut.id) })} aria-label={`Remove ${keepOut.name}`}>
        Remove
      </Button>
    </Box>
  )
}

function KeepOutLength({ path, ...rest }: { label: string; value: number; path: string; onCommit: (value: number | null) => void; disabled: boolean }) {
  return <LengthField {...rest} fault={useFault(path)} />
}
