import { Box } from '@mui/material'
import * as declared from '../../api/declared'
import type { Bolting, Structure } from '../../api/model'
import { Choice, LengthField, NumberField, SheetField, Toggle } from '../../fields/fields'
import { pair } from '../Row'

interface Props {
  bolts: Bolting
  structure: Structure
  matchMade: boolean
  path: string
  readOnly: boolean
  onChange: (part: { bolts?: Bolting; structure?: Structure; match_made?: boolean }) => void
}

/** What a place is bolted with, and what of the vehicle it is bolted to. */
export function BoltedFields({ bolts, structure, matchMade, path, readOnly, onChange }: Props) {
  const setBolts = (part: Partial<Bolting>) => onChange({ bolts: { ...bolts, ...part } })
  const setStructure = (part: Partial<Structure>) => onChange({ structure: { ...structure, ...part } })
  const choices = { ...declared.Bolting.choices, ...declared.Structure.choices }
  return (
    <>
      <Box sx={pair}>
        <Choice
          label="Bolt size"
          value={bolts.size}
          options={choices.size}
          disabled={readOnly}
          onChange={(size) => setBolts({ size })}
        />
        <Choice
          label="Grade"
          value={bolts.grade}
          options={choices.grade}
          disabled={readOnly}
          onChange={(grade) => setBolts({ grade })}
        />
        <NumberField
          label="Number of bolts"
          value={bolts.count}
          path={`${path}.bolts.count`}
          disabled={readOnly}
          onCommit={(count) => count !== null && setBolts({ count })}
        />
        <Choice
          label="Bolt condition"
          value={bolts.state}
          options={choices.state}
          disabled={readOnly}
          onChange={(state) => setBolts({ state })}
        />
      </Box>
      <Choice
        label="Locking"
        value={bolts.locking}
        options={choices.locking}
        disabled={readOnly}
        onChange={(locking) => setBolts({ locking })}
      />
      <Box sx={pair}>
        <Choice
          label="Bolted to"
          value={structure.found}
          options={choices.found}
          disabled={readOnly}
          onChange={(found) => setStructure({ found })}
        />
        <Choice
          label="Its metal"
          value={structure.metal}
          options={choices.metal}
          disabled={readOnly}
          onChange={(metal) => setStructure({ metal })}
        />
        <SheetField
          label="Its thickness"
          metal={structure.metal}
          value={structure.thickness_mm}
          path={`${path}.structure.thickness_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && setStructure({ thickness_mm: mm })}
        />
        <LengthField
          label="Hole to edge"
          value={structure.edge_mm}
          path={`${path}.structure.edge_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && setStructure({ edge_mm: mm })}
        />
      </Box>
      <Toggle
        label="Second spanner reaches the nut"
        checked={structure.from_both_sides}
        disabled={readOnly}
        onChange={(from_both_sides) => setStructure({ from_both_sides })}
      />
      <Toggle
        label="Captive nut"
        checked={bolts.captive}
        disabled={readOnly}
        onChange={(captive) => setBolts({ captive })}
      />
      <Toggle
        label="Match-made with the tank in place"
        checked={matchMade}
        disabled={readOnly}
        onChange={(match_made) => onChange({ match_made })}
      />
      <Toggle
        label="Spreading plate"
        checked={structure.plate !== null}
        disabled={readOnly}
        onChange={(has) =>
          setStructure({
            plate: has ? { ...declared.SpreadingPlate.defaults, long_mm: 60, wide_mm: 60, thickness_mm: 3 } : null,
          })
        }
      />
      {structure.plate && <PlateFields structure={structure} path={path} readOnly={readOnly} onChange={setStructure} />}
    </>
  )
}

function PlateFields({
  structure,
  path,
  readOnly,
  onChange,
}: {
  structure: Structure
  path: string
  readOnly: boolean
  onChange: (part: Partial<Structure>) => void
}) {
  const plate = structure.plate
  if (!plate) return null
  const size = (name: 'long_mm' | 'wide_mm', label: string) => (
    <LengthField
      label={label}
      value={plate[name]}
      path={`${path}.structure.plate.${name}`}
      disabled={readOnly}
      onCommit={(mm) => mm !== null && onChange({ plate: { ...plate, [name]: mm } })}
    />
  )
  return (
    <Box sx={pair}>
      {size('long_mm', 'Plate length')}
      {size('wide_mm', 'Plate width')}
      <SheetField
        label="Plate thickness"
        metal={plate.metal}
        value={plate.thickness_mm}
        path={`${path}.structure.plate.thickness_mm`}
        disabled={readOnly}
        onCommit={(mm) => mm !== null && onChange({ plate: { ...plate, thickness_mm: mm } })}
      />
    </Box>
  )
}
