import { Box, Button, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { Schemas } from '../../api/client'
import { changeFeature } from '../../drawing/edits'
import { Choice, LengthField, Toggle } from '../../fields/fields'
import { pair } from '../Row'

type Pot = Schemas['Pot']
type PotDoor = Schemas['PotDoor']

const SIDES = declared.PotDoor.choices.side
const FRESH: PotDoor = { ...declared.PotDoor.defaults, wide_mm: 40, high_mm: 25 }

/** Openings in a pot's sides: with a flap fuel comes in and stays. */
export function PotDoors({ pot, place, readOnly }: { pot: Pot; place: number; readOnly: boolean }) {
  const set = (doors: PotDoor[]) => changeFeature(pot.id, { doors })
  return (
    <>
      {pot.doors.map((door, n) => {
        const path = `shell.features.${place}.doors.${n}`
        const change = (part: Partial<PotDoor>) =>
          set(pot.doors.map((other, here) => (here === n ? { ...other, ...part } : other)))
        const field = (name: 'wide_mm' | 'high_mm' | 'up_mm' | 'crack_mm', label: string) => (
          <LengthField
            label={label}
            value={door[name]}
            path={`${path}.${name}`}
            disabled={readOnly}
            onCommit={(mm) => mm !== null && change({ [name]: mm })}
          />
        )
        return (
          <Box key={path} sx={{ display: 'grid', gap: 1.25 }}>
            <Typography variant="body2" sx={{ fontWeight: 650 }}>
              Door {n + 1}
            </Typography>
            <Choice
              label="Side"
              value={door.side}
              options={SIDES.map((side) => ({ value: side, label: `${side} side` }))}
              disabled={readOnly}
              onChange={(side) => change({ side })}
            />
            <Box sx={pair}>
              {field('wide_mm', 'Wide')}
              {field('high_mm', 'High')}
              {field('up_mm', 'Sill above floor')}
              {door.flap && field('crack_mm', 'Opens at a head of')}
            </Box>
            <Toggle
              label="Flap: fuel flows in, not out"
              checked={door.flap}
              disabled={readOnly}
              onChange={(flap) => change({ flap })}
            />
            <Button disabled={readOnly} onClick={() => set(pot.doors.filter((_, here) => here !== n))}>
              Remove door {n + 1}
            </Button>
          </Box>
        )
      })}
      <Button
        variant="outlined"
        disabled={readOnly || pot.doors.length >= declared.Pot.most.doors}
        onClick={() =>
          set([
            ...pot.doors,
            { ...FRESH, side: SIDES.find((side) => !pot.doors.some((door) => door.side === side)) ?? 'rear' },
          ])
        }
      >
        Add: door
      </Button>
    </>
  )
}
