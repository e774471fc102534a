import { Box, Button, Typography } from '@mui/material'
import { type ReactNode, useState } from 'react'
import * as declared from '../../api/declared'
import type { Bay } from '../../api/model'
import { setBay } from '../../drawing/edits'
import { LengthField } from '../../fields/fields'
import { WordsField } from '../../fields/WordsField'
import { applyPatch, change, useWork } from '../../work/store'
import { usePrice } from '../../work/Findings'
import { patched, same } from '../../work/patch'
import { Folded } from '../Folded'
import { ClearanceFields } from './ClearanceFields'
import { KeepOuts } from './KeepOuts'
import { OpeningFields } from './OpeningFields'
import { OutlineFields } from './OutlineFields'

const USUAL_SIDES = declared.Bay.defaults.sides
type Side = keyof typeof USUAL_SIDES
const SIDES = Object.keys(USUAL_SIDES) as Side[]

export function BayStation({ findings }: { findings: ReactNode }) {
  const bay = useWork((work) => work.design.bay)
  return bay ? <Measured bay={bay} findings={findings} /> : <FirstSizes />
}

/** Nothing measured yet: three sizes make the bay. */
function FirstSizes() {
  const readOnly = useWork((work) => work.readOnly)
  const [sizes, setSizes] = useState<{ length: number | null; width: number | null; height: number | null }>({
    length: null,
    width: null,
    height: null,
  })
  const next = (part: Partial<typeof sizes>) => {
    const all = { ...sizes, ...part }
    setSizes(all)
    if (all.length === null || all.width === null || all.height === null) return
    const bay: Bay = { ...declared.Bay.defaults, length_mm: all.length, width_mm: all.width, height_mm: all.height }
    change((design) => ({ ...design, bay }))
  }
  return (
    <>
      <Typography variant="body2">
        Measure the space and type its three sizes. Then add what the tank must stay clear of.
      </Typography>
      <LengthField
        label="Length, rear to front"
        value={sizes.length}
        path="bay.length_mm"
        onCommit={(length) => next({ length })}
        disabled={readOnly}
      />
      <LengthField
        label="Width, right to left"
        value={sizes.width}
        path="bay.width_mm"
        onCommit={(width) => next({ width })}
        disabled={readOnly}
      />
      <LengthField
        label="Height, floor to roof"
        value={sizes.height}
        path="bay.height_mm"
        onCommit={(height) => next({ height })}
        disabled={readOnly}
      />
    </>
  )
}

const SIZES = [
  ['length_mm', 'Length, rear to front'],
  ['width_mm', 'Width, right to left'],
  ['height_mm', 'Height, floor to roof'],
] as const

function Measured({ bay, findings }: { bay: Bay; findings: ReactNode }) {
  const readOnly = useWork((work) => work.readOnly)
  return (
    <>
      {SIZES.map(([name, label]) => (
        <LengthField
          key={name}
          label={label}
          value={bay[name]}
          path={`bay.${name}`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && setBay({ [name]: mm })}
        />
      ))}
      <FitButton />
      {findings}
      <Typography variant="h2">Keep-outs</Typography>
      <KeepOuts bay={bay} readOnly={readOnly} />
      <Folded title="Opening of the bay" open={Boolean(bay.opening)}>
        <OpeningFields bay={bay} readOnly={readOnly} />
      </Folded>
      <Folded title="Outline, where the bay is no plain box" open={Boolean(bay.profile)}>
        <OutlineFields bay={bay} readOnly={readOnly} />
      </Folded>
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

/** One press: the largest shell of its kind that clears everything. */
export function FitButton() {
  const fit = useWork((work) => work.evaluation?.bay?.fit ?? null)
  const readOnly = useWork((work) => work.readOnly)
  const bay = useWork((work) => work.design.bay)
  const kind = useWork((work) => work.design.shell?.kind ?? 'box')
  const waiting = useWork((work) => work.evaluated !== work.design || !work.evaluation?.tried)
  const price = usePrice(fit?.change ?? null)
  const moved = useWork((work) => fit !== null && !same(patched(work.design, fit.patch).shell, work.design.shell))
  const thing = kind === 'box' ? 'box' : 'tank of this shape found'
  const words = moved ? price || `The largest ${thing} that clears everything` : 'It is as large as the bay allows.'
  return (
    <Box>
      <Button
        fullWidth
        variant="contained"
        disabled={!fit || readOnly || waiting}
        onClick={() => fit && applyPatch(fit.patch)}
      >
        {kind === 'box' ? 'Fit a box to the bay' : 'Fit this shape to the bay'}
      </Button>
      <Typography variant="body2" color="textSecondary" sx={{ mt: 0.5, minHeight: 20 }}>
        {!bay
          ? 'Type the bay’s sizes first, at Bay.'
          : fit && !waiting
            ? words
            : waiting
              ? ''
              : `No ${kind === 'box' ? 'box' : 'tank of this shape'} of this metal and thickness clears everything.`}
      </Typography>
    </Box>
  )
}

function Datum({ value, disabled }: { value: string; disabled: boolean }) {
  return (
    <WordsField
      label="Datum"
      value={value}
      most={declared.Bay.most.datum}
      disabled={disabled}
      hint="Where all measuring starts: x forward, y left, z up from here"
      onCommit={(datum) => setBay({ datum })}
    />
  )
}
