import { Box, Button, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import * as declared from '../../api/declared'
import { Choice, QuantityField } from '../../fields/fields'
import { Papers } from '../../papers/Papers'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'
import { pair } from '../Row'
import { BearerRow } from './BearerFields'
import { BoltTable } from './BoltTable'
import { addBearer, addFoot, addStop, addStrap, setMount } from './edits'
import { FillerFields } from './FillerFields'
import { FootRow, StopRow } from './FootFields'
import { HoldingWays } from './HoldingWays'
import { LoadTable } from './LoadTable'
import { CarriedFields, ChangeFields } from './OtherFields'
import { StrapRow } from './StrapFields'
import { VehiclePanel } from './VehiclePanel'

const ADDED = [
  { list: 'straps', label: 'Add a strap', add: addStrap },
  { list: 'feet', label: 'Add a foot', add: addFoot },
  { list: 'stops', label: 'Add a stop', add: addStop },
  { list: 'bearers', label: 'Add a bearer', add: addBearer },
] as const

/** What holds the tank: straps, feet, stops, and what they bear. */
export function MountStation({ findings }: { findings: ReactNode }) {
  const mount = useWork((work) => work.design.mount)
  const readOnly = useWork((work) => work.readOnly)
  const shaped = useWork((work) => Boolean(work.evaluation?.shell?.geometry))
  if (!shaped)
    return <Typography variant="body2">Nothing to hold yet: give the tank a shape at Shell first.</Typography>
  const isEmpty = !mount.straps.length && !mount.feet.length && !mount.stops.length && !mount.bearers.length
  return (
    <>
      {isEmpty && (
        <>
          <Typography variant="body2">
            Choose how to hold it: each way is fitted to this tank and as strong as its loads ask. Then drag anchors and
            stops on the drawing.
          </Typography>
          <HoldingWays />
        </>
      )}
      {!isEmpty && <LoadTable />}
      {findings}
      {mount.straps.map((strap, place) => (
        <StrapRow key={strap.id} strap={strap} place={place} readOnly={readOnly} />
      ))}
      <LongestStrap />
      {mount.feet.map((foot, place) => (
        <FootRow key={foot.id} foot={foot} place={place} readOnly={readOnly} />
      ))}
      {mount.bearers.map((bearer, place) => (
        <BearerRow key={bearer.id} bearer={bearer} place={place} readOnly={readOnly} />
      ))}
      {mount.stops.map((stop, place) => (
        <StopRow key={stop.id} stop={stop} place={place} readOnly={readOnly} />
      ))}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        {ADDED.map(({ list, label, add }) => (
          <Button
            key={list}
            variant="outlined"
            disabled={readOnly || mount[list].length >= declared.Mount.most[list]}
            onClick={add}
          >
            {label}
          </Button>
        ))}
      </Box>
      <LoadFields readOnly={readOnly} />
      {!isEmpty && (
        <Folded title="Ways to hold it">
          <HoldingWays />
        </Folded>
      )}
      <Folded title="Filler route">
        <FillerFields readOnly={readOnly} />
      </Folded>
      <Folded title="Leaned on, brackets, coating">
        <CarriedFields readOnly={readOnly} />
      </Folded>
      <Folded title="Later holes, cut structure">
        <ChangeFields readOnly={readOnly} />
      </Folded>
      <Folded title="Vehicle">
        <VehiclePanel readOnly={readOnly} />
      </Folded>
      {!isEmpty && (
        <>
          <Folded title="Bolts">
            <BoltTable />
          </Folded>
          <Folded title="Download">
            <Papers station="mount" />
          </Folded>
        </>
      )}
    </>
  )
}

/** Straps that look alike and aren't: which is longer, and by how much. */
function LongestStrap() {
  const units = useUnits()
  const paths = (useWork((work) => work.evaluation?.mount?.straps) ?? []).filter((path) => !path.problem)
  const sorted = [...paths].sort((a, b) => b.cut_mm - a.cut_mm)
  const [longest, next] = [sorted[0], sorted.at(-1)]
  if (!longest || !next || longest.cut_mm - next.cut_mm < 1) return null
  return (
    <Typography variant="body2" data-longest={longest.id}>
      {longest.name} is {units.lengthUnitText(longest.cut_mm - next.cut_mm)} longer than {next.name}: mark them before
      they lie side by side.
    </Typography>
  )
}

const WAYS = {
  forward_g: 'Forward',
  rearward_g: 'Rearward',
  sideways_g: 'Sideways',
  up_g: 'Upward',
  down_g: 'Downward',
} as const

/** Which loads count: the house rule's by use, or typed from a rule card. */
function LoadFields({ readOnly }: { readOnly: boolean }) {
  const { use, loads } = useWork((work) => work.design.mount)
  const usual = declared.MountLoads.defaults
  return (
    <>
      <Choice
        label="Loads for"
        value={use}
        options={declared.Mount.choices.use}
        hint="g by direction: house rules for road and competition, or typed from a rule card"
        disabled={readOnly}
        onChange={(next) => setMount(next === 'rule card' ? { use: next, loads: loads ?? usual } : { use: next })}
      />
      {use === 'rule card' && loads && (
        <Box sx={pair}>
          {(Object.keys(WAYS) as (keyof typeof WAYS)[]).map((name) => (
            <QuantityField
              key={name}
              label={WAYS[name]}
              of="g"
              value={loads[name]}
              path={`mount.loads.${name}`}
              disabled={readOnly}
              onCommit={(g) => g !== null && setMount({ loads: { ...loads, [name]: g } })}
            />
          ))}
        </Box>
      )}
    </>
  )
}
