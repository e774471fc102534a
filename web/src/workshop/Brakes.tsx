import { Box, Button, TextField } from '@mui/material'
import * as declared from '../api/declared'
import type { Fault } from '../api/client'
import { Choice, LengthField, QuantityField } from '../fields/fields'
import { BeamTable } from './BeamTable'
import { BrakePicture } from './BrakePicture'
import { grid } from './Section'
import type { Settings } from './WorkshopPage'

type Brake = NonNullable<Settings['brake']>

const SIZES: { name: keyof Brake & string; label: string }[] = [
  { name: 'width_mm', label: 'Longest bend' },
  { name: 'smallest_closed_box_mm', label: 'Smallest closed box, inside' },
  { name: 'fingers_mm', label: 'Deepest pan, all round' },
  { name: 'thickest_steel_mm', label: 'Thickest mild steel' },
  { name: 'shortest_flange_mm', label: 'Shortest flange' },
]
/** What only a folder, or only a press brake, has. */
const OF_KIND: Record<NonNullable<Brake['kind']>, { name: keyof Brake & string; label: string }[]> = {
  folder: [
    { name: 'bed_mm', label: 'Bed reaches back' },
    { name: 'leaf_mm', label: 'Leaf reaches out' },
  ],
  'press brake': [{ name: 'die_mm', label: 'Die, width of its block' }],
}
/** Sizes that may be left empty, and what that means. */
const OPEN: Partial<Record<keyof Brake, string>> = {
  smallest_closed_box_mm: 'closes none',
  throat_mm: 'no frame',
}

interface Props {
  settings: Settings
  mayWrite: boolean
  fault: (path: string) => Fault | undefined
  onChange: (settings: Settings) => void
}

/** The usual brake, then the others in the order in which a part is offered to them. */
export function Brakes({ settings, mayWrite, fault, onChange }: Props) {
  const others = settings.more_brakes ?? []
  const setOther = (place: number, part: Partial<Brake>) =>
    onChange({ ...settings, more_brakes: others.map((one, n) => (n === place ? { ...one, ...part } : one)) })
  return (
    <>
      <One
        brake={settings.brake ?? {}}
        path="brake"
        disabled={!mayWrite}
        fault={fault}
        onChange={(part) => onChange({ ...settings, brake: { ...settings.brake, ...part } })}
      />
      {others.map((brake, place) => (
        <Box key={place} role="group" aria-label={brake.name} sx={{ mt: 3 }}>
          <One
            brake={brake}
            path={`more_brakes.${place}`}
            disabled={!mayWrite}
            fault={fault}
            onChange={(part) => setOther(place, part)}
          />
          {mayWrite && (
            <Button onClick={() => onChange({ ...settings, more_brakes: others.filter((_, n) => n !== place) })}>
              Remove {brake.name}
            </Button>
          )}
        </Box>
      ))}
      {mayWrite && others.length < declared.Workshop.most.more_brakes && (
        <Button
          variant="outlined"
          sx={{ mt: 2 }}
          onClick={() =>
            onChange({
              ...settings,
              more_brakes: [...others, { ...declared.Brake.defaults, name: `Brake ${others.length + 2}` }],
            })
          }
        >
          Add another brake
        </Button>
      )}
    </>
  )
}

function One({
  brake,
  path,
  disabled,
  fault,
  onChange,
}: {
  brake: Brake
  path: string
  disabled: boolean
  fault: Props['fault']
  onChange: (part: Partial<Brake>) => void
}) {
  const kind = brake.kind ?? declared.Brake.defaults.kind
  return (
    <>
      <Box sx={grid}>
        <TextField
          label="Name"
          value={brake.name ?? ''}
          disabled={disabled}
          onChange={(event) => onChange({ name: event.target.value.slice(0, declared.Brake.most.name) })}
        />
        <Choice
          label="Kind"
          value={kind}
          options={declared.Brake.choices.kind}
          disabled={disabled}
          onChange={(kind) => onChange({ kind })}
        />
        {[...SIZES, ...OF_KIND[kind], { name: 'throat_mm' as const, label: 'Room behind the bend' }].map(
          ({ name, label }) => (
            <LengthField
              key={name}
              label={label}
              value={(brake[name] as number | null | undefined) ?? null}
              emptyText={OPEN[name]}
              hint={name in OPEN ? `empty: ${OPEN[name]}` : undefined}
              disabled={disabled}
              fault={fault(`${path}.${name}`)}
              onCommit={(value) => (value !== null || name in OPEN) && onChange({ [name]: value })}
            />
          ),
        )}
        <QuantityField
          label="Sharpest bend"
          of="deg"
          value={brake.most_angle_deg ?? null}
          disabled={disabled}
          fault={fault(`${path}.most_angle_deg`)}
          onCommit={(value) => value !== null && onChange({ most_angle_deg: value })}
        />
      </Box>
      <BrakePicture brake={brake} />
      <BeamTable
        what={kind === 'folder' ? 'Clamping beam' : 'Punch'}
        corners={brake.beam ?? []}
        disabled={disabled}
        fault={fault(`${path}.beam`)}
        onChange={(beam) => onChange({ beam })}
      />
    </>
  )
}
