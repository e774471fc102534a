import { Box, Button } from '@mui/material'
import type { Port } from '../../api/model'
import { changePort } from '../../drawing/edits'
import { LengthField, QuantityField } from '../../fields/fields'
import { Folded } from '../Folded'
import { pair } from '../Row'
import { changeInner } from './edits'

type Bend = NonNullable<Port['bend']>
const USUAL: Bend = { outer_mm: 16, radius_mm: 60, turns_deg: 90, run_mm: 30 }

/** The hose on what stands there, which bends over and needs room for it. */
export function BendFields({ port, place, readOnly }: { port: Port; place: number; readOnly: boolean }) {
  const { bend } = port
  if (!bend) {
    return (
      <Button
        variant="outlined"
        disabled={readOnly}
        onClick={() => changePort(port.id, { bend: USUAL, hose_deg: port.hose_deg ?? 0 })}
      >
        Add a hose bend
      </Button>
    )
  }
  const size = (name: 'outer_mm' | 'radius_mm' | 'run_mm', label: string) => (
    <LengthField
      label={label}
      value={bend[name]}
      path={`ports.${place}.bend.${name}`}
      disabled={readOnly}
      onCommit={(mm) => mm !== null && changeInner(port, 'bend', { [name]: mm })}
    />
  )
  return (
    <Folded title="Hose bend" open>
      <Box sx={pair}>
        {size('outer_mm', 'Outside diameter')}
        {size('radius_mm', 'Bend radius')}
        <QuantityField
          label="Angle"
          of="deg"
          value={bend.turns_deg}
          path={`ports.${place}.bend.turns_deg`}
          disabled={readOnly}
          onCommit={(turns_deg) => turns_deg !== null && changeInner(port, 'bend', { turns_deg })}
        />
        {size('run_mm', 'Straight run after')}
      </Box>
      <Button disabled={readOnly} onClick={() => changePort(port.id, { bend: null })}>
        Remove the hose bend
      </Button>
    </Folded>
  )
}
