import { Box, Button, TextField, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { Design } from '../../api/model'
import { LengthField, NumberField, QuantityField, ShareField } from '../../fields/fields'
import { change, useFault, useWork } from '../../work/store'
import { pair } from '../Row'

type Inside = Design['inside']
type Foam = NonNullable<Inside['foam']>
type Bladder = NonNullable<Inside['bladder']>

const setInside = (part: Partial<Inside>) => change((design) => ({ ...design, inside: { ...design.inside, ...part } }))
const changeFoam = (part: Partial<Foam>) =>
  change((design) =>
    design.inside.foam ? { ...design, inside: { ...design.inside, foam: { ...design.inside.foam, ...part } } } : design,
  )
const changeBladder = (part: Partial<Bladder>) =>
  change((design) =>
    design.inside.bladder
      ? { ...design, inside: { ...design.inside, bladder: { ...design.inside.bladder, ...part } } }
      : design,
  )

/** Foam all through: what it takes, when it went in, how long it lasts. */
export function FoamFields({ readOnly }: { readOnly: boolean }) {
  const foam = useWork((work) => work.design.inside.foam)
  if (!foam) {
    return (
      <>
        <Typography variant="body2" color="textSecondary">
          Foam damps everywhere and takes about 3 % of the space. It ages into crumbs, so it has a date.
        </Typography>
        <Button variant="outlined" disabled={readOnly} onClick={() => setInside({ foam: declared.Foam.defaults })}>
          Add foam
        </Button>
      </>
    )
  }
  return (
    <>
      <Box sx={pair}>
        <ShareField
          label="Volume taken"
          value={foam.takes}
          path="inside.foam.takes"
          disabled={readOnly}
          onCommit={(takes) => takes !== null && changeFoam({ takes })}
        />
        <QuantityField
          label="Mass"
          of="kg"
          value={foam.kg}
          path="inside.foam.kg"
          disabled={readOnly}
          onCommit={(kg) => kg !== null && changeFoam({ kg })}
        />
      </Box>
      <Age of={foam} path="inside.foam" readOnly={readOnly} onChange={changeFoam} />
      <Button disabled={readOnly} onClick={() => setInside({ foam: null })}>
        Remove the foam
      </Button>
    </>
  )
}

/** A bag in the shell, which is then its box. */
export function BladderFields({ readOnly }: { readOnly: boolean }) {
  const bladder = useWork((work) => work.design.inside.bladder)
  if (!bladder) {
    return (
      <>
        <Typography variant="body2" color="textSecondary">
          A bag inside the shell, which is then its box. It stands off the box all round, so the litres are the bag’s.
          No plates stand in it.
        </Typography>
        <Button
          variant="outlined"
          disabled={readOnly}
          onClick={() => setInside({ bladder: declared.Bladder.defaults })}
        >
          Add a bladder
        </Button>
      </>
    )
  }
  return (
    <>
      <Box sx={pair}>
        <LengthField
          label="Bag thickness"
          value={bladder.bag_mm}
          path="inside.bladder.bag_mm"
          disabled={readOnly}
          onCommit={(bag_mm) => bag_mm !== null && changeBladder({ bag_mm })}
        />
        <LengthField
          label="Clearance to the box"
          value={bladder.shrink_mm}
          path="inside.bladder.shrink_mm"
          disabled={readOnly}
          onCommit={(shrink_mm) => shrink_mm !== null && changeBladder({ shrink_mm })}
        />
        <QuantityField
          label="Mass"
          of="kg"
          value={bladder.kg}
          path="inside.bladder.kg"
          disabled={readOnly}
          onCommit={(kg) => kg !== null && changeBladder({ kg })}
        />
      </Box>
      <Age of={bladder} path="inside.bladder" readOnly={readOnly} onChange={changeBladder} />
      <Typography variant="body2" color="textSecondary">
        Before the bag goes in: no burr, weld spatter or sharp edge where it lies, corners seated, its folded size
        through the opening. Where rules ask for a bag, keep to its maker’s and the sanctioning body’s paper.
      </Typography>
      <Button disabled={readOnly} onClick={() => setInside({ bladder: null })}>
        Remove the bladder
      </Button>
    </>
  )
}

interface AgeProps {
  of: Foam | Bladder
  path: string
  readOnly: boolean
  onChange: (part: { fitted?: string | null; life_years?: number }) => void
}

function Age({ of, path, readOnly, onChange }: AgeProps) {
  const fault = useFault(`${path}.fitted`)?.message
  return (
    <Box sx={pair}>
      <TextField
        type="date"
        label="Date fitted"
        value={of.fitted ?? ''}
        disabled={readOnly}
        error={Boolean(fault)}
        helperText={fault}
        slotProps={{ inputLabel: { shrink: true } }}
        onChange={(event) => onChange({ fitted: event.target.value || null })}
      />
      <NumberField
        label="Service life"
        unit="years"
        value={of.life_years}
        path={`${path}.life_years`}
        disabled={readOnly}
        onCommit={(life_years) => life_years !== null && onChange({ life_years })}
      />
    </Box>
  )
}
