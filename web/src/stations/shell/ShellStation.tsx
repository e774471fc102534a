import { Box, Button, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import type { Shell } from '../../api/model'
import { Choice, LengthField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { change, useFault, useWork } from '../../work/store'
import { FitButton } from '../bay/BayStation'
import { Folded } from '../Folded'
import { CapacityTable, StrappingTable } from './CapacityTables'
import { FillFields } from './FillFields'

const METALS: Shell['metal'][] = ['mild steel', 'stainless 304L', '3003-H14', '5052-H32', '5083-H111', '6061-T6']

const FIRST: Shell = { kind: 'box', measured: 'outside', length_mm: 600, width_mm: 400, height_mm: 300, x_mm: 0, y_mm: 0, z_mm: 0, metal: '5052-H32', thickness_mm: 3, bend_radius_mm: 4.5, wrap_axis: 'x' }

const setShell = (part: Partial<Shell>) => change((design) => (design.shell ? { ...design, shell: { ...design.shell, ...part } } : design))

export function ShellStation({ findings }: { findings: ReactNode }) {
  const shell = useWork((work) => work.design.shell)
  const readOnly = useWork((work) => work.readOnly)
  if (!shell) {
    return (
      <>
        <Typography variant="body2">No shape yet. Fit one to the bay, or start from sizes of your own and drag it about.</Typography>
        <FitButton />
        <Button variant="outlined" disabled={readOnly} onClick={() => change((design) => ({ ...design, shell: FIRST }))}>
          Start with a box
        </Button>
      </>
    )
  }
  return <BoxFields shell={shell} readOnly={readOnly} findings={findings} />
}

type LengthName = 'length_mm' | 'width_mm' | 'height_mm' | 'x_mm' | 'y_mm' | 'z_mm' | 'thickness_mm' | 'bend_radius_mm'

function Size({ name, label, shell, readOnly, hint }: { name: LengthName; label: string; shell: Shell; readOnly: boolean; hint?: string }) {
  return <LengthField label={label} value={shell[name] ?? 0} fault={useFault(`shell.${name}`)} hint={hint} disabled={readOnly} onCommit={(value) => value !== null && setShell({ [name]: value })} />
}

function BoxFields({ shell, readOnly, findings }: { shell: Shell; readOnly: boolean; findings: ReactNode }) {
  const where = shell.measured === 'inside' ? 'inside' : 'outside'
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <Size name="length_mm" label={`Length ${where}`} shell={shell} readOnly={readOnly} />
        <Size name="width_mm" label={`Width ${where}`} shell={shell} readOnly={readOnly} />
        <Size name="height_mm" label={`Height ${where}`} shell={shell} readOnly={readOnly} />
        <Size name="thickness_mm" label="Sheet" shell={shell} readOnly={readOnly} />
      </Box>
      <Lips />
      <Choice label="Metal" value={shell.metal ?? '5052-H32'} options={METALS.filter((item) => item !== undefined)} disabled={readOnly} onChange={(metal) => setShell({ metal })} />
      <FillFields />
      <FitButton />
      {findings}
      <Folded title="Place, bends and how it is measured">
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
          <Size name="x_mm" label="From rear" shell={shell} readOnly={readOnly} />
          <Size name="y_mm" label="From right" shell={shell} readOnly={readOnly} />
          <Size name="z_mm" label="From floor" shell={shell} readOnly={readOnly} />
          <Size name="bend_radius_mm" label="Inside bend radius" shell={shell} readOnly={readOnly} />
        </Box>
        <Choice
          label="Sizes go"
          value={shell.measured ?? 'outside'}
          options={[
            { value: 'outside', label: 'over the plates (outside)' },
            { value: 'inside', label: 'between the plates (inside)' },
          ]}
          disabled={readOnly}
          onChange={(measured) => setShell(remeasured(shell, measured))}
        />
        <Choice
          label="Wrapper’s bends run"
          value={shell.wrap_axis ?? 'x'}
          options={[
            { value: 'x', label: 'lengthwise, ends front and rear' },
            { value: 'y', label: 'across, ends left and right' },
          ]}
          disabled={readOnly}
          onChange={(wrap_axis) => setShell({ wrap_axis })}
        />
      </Folded>
      <Folded title="Where the litres come from">
        <CapacityTable />
      </Folded>
      <Folded title="Strapping table, on the level">
        <StrappingTable />
      </Folded>
    </>
  )
}

/** Where the wrapper stands out beyond the plates that the sizes go over. */
function Lips() {
  const shape = useWork((work) => work.evaluation?.geometry ?? null)
  const units = useUnits()
  if (!shape) return null
  const axis = shape.wrap_axis === 'y' ? 'y' : 'x'
  return (
    <Typography variant="body2" color="textSecondary">
      Over the plates. The inset end pans leave a lip of {units.length(shape.lip_mm)} at {axis === 'x' ? 'front and rear' : 'left and right'}: {units.lengthUnitText(shape.overall.high[axis] - shape.overall.low[axis])} overall.
    </Typography>
  )
}

/** The same tank, its sizes written the other way. */
function remeasured(shell: Shell, measured: 'inside' | 'outside'): Partial<Shell> {
  if (measured === shell.measured) return {}
  const more = (measured === 'outside' ? 2 : -2) * (shell.thickness_mm ?? 0)
  return { measured, length_mm: shell.length_mm + more, width_mm: shell.width_mm + more, height_mm: shell.height_mm + more }
}
