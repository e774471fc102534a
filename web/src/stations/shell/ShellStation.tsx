import { Alert, Box, Button, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import * as declared from '../../api/declared'
import type { BoxShell, CylinderShell, ProfileShell, Shell } from '../../api/model'
import { setShell } from '../../drawing/edits'
import { Choice, LengthField, SheetField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { change, select, useWork } from '../../work/store'
import { FitButton } from '../bay/BayStation'
import { Folded } from '../Folded'
import { CapacityTable, StrappingTable } from './CapacityTables'
import { FeaturesPanel } from './FeaturesPanel'
import { FillFields } from './FillFields'
import { FIRST, KINDS, kindOf, turnedInto } from './kinds'
import { PanelTable } from './PanelTable'
import { ProfileTable } from './ProfileTable'

const SHAPING = ['well', 'sump', 'relief', 'roof step', 'partition'] as const

export function ShellStation({ findings }: { findings: ReactNode }) {
  const shell = useWork((work) => work.design.shell)
  const readOnly = useWork((work) => work.readOnly)
  if (!shell) {
    return (
      <>
        <Typography variant="body2">
          No shape yet. Fit one to the bay, or start from sizes of your own and drag it about. Any other kind can be
          made from it.
        </Typography>
        <FitButton />
        <Button
          variant="outlined"
          disabled={readOnly}
          onClick={() => change((design) => ({ ...design, shell: FIRST }))}
        >
          Start with a box
        </Button>
      </>
    )
  }
  return <ShellFields shell={shell} readOnly={readOnly} findings={findings} />
}

function ShellFields({ shell, readOnly, findings }: { shell: Shell; readOnly: boolean; findings: ReactNode }) {
  const evaluation = useWork((work) => work.evaluation)
  const features = shell.features.filter((feature) => feature.kind !== 'baffle' && feature.kind !== 'pot').length
  const become = (kind: (typeof KINDS)[number]['value']) => {
    select(null)
    change((design) => (design.shell ? { ...design, shell: turnedInto(kind, design.shell, evaluation) } : design))
  }
  return (
    <>
      <Choice label="Tank shape" value={kindOf(shell)} options={KINDS} disabled={readOnly} onChange={become} />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        {shell.kind === 'box' && <BoxSizes shell={shell} readOnly={readOnly} />}
        {shell.kind === 'profile' && <ProfileSizes shell={shell} readOnly={readOnly} />}
        {shell.kind === 'cylinder' && <CylinderSizes shell={shell} readOnly={readOnly} />}
        <Size
          name="thickness_mm"
          label="Sheet thickness"
          value={shell.thickness_mm}
          metal={shell.metal}
          readOnly={readOnly}
        />
      </Box>
      <Lips />
      <Choice
        label="Metal"
        value={shell.metal}
        options={declared.BoxShell.choices.metal}
        disabled={readOnly}
        onChange={(metal) => setShell({ metal })}
      />
      <ShapeFaults />
      <FillFields />
      <FitButton />
      {findings}
      {shell.kind === 'profile' && (
        <Folded title={`Profile, ${shell.corners.length} corners`} open>
          <ProfileTable shell={shell} readOnly={readOnly} />
        </Folded>
      )}
      <Folded
        title={features ? `Wells, sumps and partitions, ${features}` : 'Wells, sumps and partitions'}
        open={features > 0}
      >
        <FeaturesPanel
          shell={shell}
          kinds={SHAPING}
          empty="A well seats a short pump lower; a sump holds the last of the fuel at the pickup; a relief clears what passes by; a partition makes two cells. Baffles and pots are at Inside."
          readOnly={readOnly}
        />
      </Folded>
      <Folded title="Place, bends and how it is measured">
        <PlaceFields shell={shell} readOnly={readOnly} />
      </Folded>
      <Folded title="Where the litres come from">
        <CapacityTable />
      </Folded>
      <Folded title="Strapping table and dip stick, on the level">
        <StrappingTable />
      </Folded>
      <Folded title="How strong its faces are">
        <PanelTable />
      </Folded>
    </>
  )
}

/** One length of the shell. */
function Size({
  name,
  label,
  value,
  readOnly,
  hint,
  emptyText,
  metal,
}: {
  name: string
  label: string
  value: number | null
  readOnly: boolean
  hint?: string
  emptyText?: string
  metal?: string
}) {
  const Field = metal ? SheetField : LengthField
  return (
    <Field
      metal={metal ?? ''}
      label={label}
      value={value}
      path={`shell.${name}`}
      hint={hint}
      emptyText={emptyText}
      disabled={readOnly}
      onCommit={(mm) => (mm !== null || emptyText !== undefined) && setShell({ [name]: mm })}
    />
  )
}

function BoxSizes({ shell, readOnly }: { shell: BoxShell; readOnly: boolean }) {
  const where = shell.measured === 'inside' ? 'inside' : 'outside'
  return (
    <>
      <Size name="length_mm" label={`Length ${where}`} value={shell.length_mm} readOnly={readOnly} />
      <Size name="width_mm" label={`Width ${where}`} value={shell.width_mm} readOnly={readOnly} />
      <Size name="height_mm" label={`Height ${where}`} value={shell.height_mm} readOnly={readOnly} />
    </>
  )
}

function ProfileSizes({ shell, readOnly }: { shell: ProfileShell; readOnly: boolean }) {
  return (
    <Size
      name="run_mm"
      label={shell.wrap_axis === 'y' ? 'Width, over the ends' : 'Length, over the ends'}
      value={shell.run_mm}
      readOnly={readOnly}
    />
  )
}

function CylinderSizes({ shell, readOnly }: { shell: CylinderShell; readOnly: boolean }) {
  return (
    <>
      <Size name="diameter_mm" label="Outside diameter" value={shell.diameter_mm} readOnly={readOnly} />
      <Size
        name="run_mm"
        label={shell.axis === 'z' ? 'Height to the rims' : 'Length to the rims'}
        value={shell.run_mm}
        readOnly={readOnly}
      />
      <Size name="dish_mm" label="Dish of the ends" value={shell.dish_mm} readOnly={readOnly} hint="0 is flat" />
    </>
  )
}

function PlaceFields({ shell, readOnly }: { shell: Shell; readOnly: boolean }) {
  const units = useUnits()
  const wall = units.editLength(shell.thickness_mm)
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <Size name="x_mm" label="From rear" value={shell.x_mm} readOnly={readOnly} />
        <Size name="y_mm" label="From right" value={shell.y_mm} readOnly={readOnly} />
        <Size name="z_mm" label="From floor" value={shell.z_mm} readOnly={readOnly} />
        {shell.kind !== 'cylinder' && (
          <Size name="bend_radius_mm" label="Inside bend radius" value={shell.bend_radius_mm} readOnly={readOnly} />
        )}
        <Size
          name="ends_thickness_mm"
          label="End thickness"
          metal={shell.metal}
          value={shell.ends_thickness_mm ?? null}
          emptyText={wall}
          hint="as the wrapper unless typed"
          readOnly={readOnly}
        />
        <Size
          name="features_thickness_mm"
          label="Well thickness"
          metal={shell.metal}
          value={shell.features_thickness_mm ?? null}
          emptyText={wall}
          hint="as the wrapper unless typed"
          readOnly={readOnly}
        />
      </Box>
      {shell.kind === 'box' && (
        <Choice
          label="Dimensions"
          value={shell.measured}
          options={[
            { value: 'outside', label: 'over the plates (outside)' },
            { value: 'inside', label: 'between the plates (inside)' },
          ]}
          disabled={readOnly}
          onChange={(measured) => setShell(remeasured(shell, measured))}
        />
      )}
      {shell.kind === 'cylinder' && shell.axis !== 'z' && (
        <Choice
          label="Axis direction"
          value={shell.axis}
          options={[
            { value: 'x', label: 'lengthwise' },
            { value: 'y', label: 'across' },
          ]}
          disabled={readOnly}
          onChange={(axis) => setShell({ axis })}
        />
      )}
      {shell.kind !== 'cylinder' && (
        <Choice
          label={shell.kind === 'box' ? 'Wrapper’s bends run' : 'Profile drawn out'}
          value={shell.wrap_axis}
          options={[
            { value: 'x', label: 'lengthwise, ends front and rear' },
            { value: 'y', label: 'across, ends left and right' },
          ]}
          disabled={readOnly}
          onChange={(wrap_axis) => setShell({ wrap_axis })}
        />
      )}
    </>
  )
}

/** What is wrong with the shape as a whole: faults that no single field shows. */
function ShapeFaults() {
  const faults = useWork((work) => work.faults)
  const { inText } = useUnits()
  const shown = faults.filter((fault) => /^shell(\.(corners|features)\b.*)?$/.test(fault.field))
  return shown.map((fault) => (
    <Alert key={fault.field + fault.message} severity="error" data-shape-fault>
      {inText(fault.message)}. The drawing and the figures are from before.
    </Alert>
  ))
}

/** Where the wrapper stands out beyond the plates that the sizes go over. */
function Lips() {
  const shape = useWork((work) => work.evaluation?.shell?.geometry ?? null)
  const units = useUnits()
  if (!shape || shape.kind !== 'box' || shape.axis === 'z') return null
  const { axis } = shape
  return (
    <Typography variant="body2" color="textSecondary">
      Over the plates. The inset end pans leave a lip of {units.length(shape.lip_mm)} at{' '}
      {axis === 'x' ? 'front and rear' : 'left and right'}:{' '}
      {units.lengthUnitText(shape.overall.high[axis] - shape.overall.low[axis])} overall.
    </Typography>
  )
}

/** The same tank, its sizes written the other way. */
function remeasured(shell: BoxShell, measured: 'inside' | 'outside'): Partial<BoxShell> {
  if (measured === shell.measured) return {}
  const sign = measured === 'outside' ? 2 : -2
  const along = shell.wrap_axis === 'x' ? 'length_mm' : 'width_mm'
  const wall = (name: string) =>
    sign * (name === along ? (shell.ends_thickness_mm ?? shell.thickness_mm) : shell.thickness_mm)
  return {
    measured,
    length_mm: shell.length_mm + wall('length_mm'),
    width_mm: shell.width_mm + wall('width_mm'),
    height_mm: shell.height_mm + wall('height_mm'),
  }
}
