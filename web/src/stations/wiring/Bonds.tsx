import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { Bond } from '../../api/model'
import { Choice, LengthField, WireField } from '../../fields/fields'
import { useWork } from '../../work/store'
import { pair } from '../Row'
import { addBond, changeBond, removeBond } from './edits'

/** Straps from tank, necks and filters to the chassis. */
export function Bonds({ readOnly }: { readOnly: boolean }) {
  const { inks } = useTheme()
  const bonds = useWork((work) => work.design.wiring.bonds)
  const pieces = useWork((work) => work.evaluation?.wiring?.bonding?.pieces) ?? []
  return (
    <>
      {pieces
        .filter((piece) => piece.metal !== 'chassis')
        .map((piece) => (
          <Box
            key={piece.key}
            sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 44 }}
            data-piece={piece.key}
          >
            <Typography variant="body2" sx={{ flex: 1, color: piece.joined ? undefined : inks.stop }}>
              {piece.name}:{' '}
              {piece.by_word ? 'bonded, as its port says' : piece.joined ? 'bonded to the chassis' : 'not bonded'}
            </Typography>
            {!piece.joined && (
              <Button size="small" variant="outlined" disabled={readOnly} onClick={() => addBond(piece.key)}>
                Add a strap
              </Button>
            )}
          </Box>
        ))}
      {bonds.map((bond, place) => (
        <BondFields key={bond.id} bond={bond} place={place} readOnly={readOnly} />
      ))}
      <Typography variant="body2" color="textSecondary">
        Readings between them are logged at Build, once the tank is mounted.
      </Typography>
    </>
  )
}

function BondFields({ bond, place, readOnly }: { bond: Bond; place: number; readOnly: boolean }) {
  const pieces = useWork((work) => work.evaluation?.wiring?.bonding?.pieces) ?? []
  const known = pieces.map((piece) => ({ value: piece.key, label: piece.name }))
  const ends = (value: string) =>
    known.some((one) => one.value === value) ? known : [...known, { value, label: `${value}, gone` }]
  const path = `wiring.bonds.${place}`
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.5 }} data-bond={bond.id}>
      <Typography variant="body2" sx={{ fontWeight: 650 }}>
        {bond.name}
      </Typography>
      <Box sx={pair}>
        <Choice
          label="From"
          value={bond.start}
          options={ends(bond.start)}
          disabled={readOnly}
          onChange={(start) => changeBond(bond.id, { start })}
        />
        <Choice
          label="To"
          value={bond.end}
          options={ends(bond.end)}
          disabled={readOnly}
          onChange={(end) => changeBond(bond.id, { end })}
        />
        <WireField
          label="Size"
          value={bond.area_mm2}
          path={`${path}.area_mm2`}
          disabled={readOnly}
          onCommit={(area_mm2) => area_mm2 !== null && changeBond(bond.id, { area_mm2 })}
        />
        <LengthField
          label="Length"
          value={bond.length_mm ?? null}
          emptyText="not measured"
          path={`${path}.length_mm`}
          disabled={readOnly}
          onCommit={(length_mm) => changeBond(bond.id, { length_mm })}
        />
      </Box>
      <Button disabled={readOnly} onClick={() => removeBond(bond.id)}>
        Remove {bond.name}
      </Button>
    </Box>
  )
}
