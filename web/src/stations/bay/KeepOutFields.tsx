import { Alert, Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useQuery } from '@tanstack/react-query'
import type { Bay, KeepOut } from '../../api/model'
import { changeKeepOut, setBay } from '../../drawing/edits'
import { Choice, LengthField, Toggle } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { useUnits } from '../../units/useUnits'
import { ClearanceFields } from './ClearanceFields'
import { scanQuery } from './scans'

const BOX_FIELDS = [
  ['length_mm', 'Length'],
  ['x_mm', 'From rear'],
  ['width_mm', 'Width'],
  ['y_mm', 'From right'],
  ['height_mm', 'Height'],
  ['z_mm', 'From floor'],
]
const ROUND_FIELDS = [
  ['diameter_mm', 'Diameter'],
  ['run_mm', 'Long'],
  ['x_mm', 'From rear'],
  ['y_mm', 'From right'],
  ['z_mm', 'From floor'],
]
const SCAN_FIELDS = [
  ['x_mm', 'Moved forward'],
  ['y_mm', 'Moved left'],
  ['z_mm', 'Moved up'],
]

export function KeepOutFields({
  keepOut,
  place,
  bay,
  readOnly,
}: {
  keepOut: KeepOut
  place: number
  bay: Bay
  readOnly: boolean
}) {
  const { inks } = useTheme()
  const path = `bay.keep_outs.${place}`
  const set = (part: Record<string, unknown>) => changeKeepOut(keepOut.id, part)
  const lengths = (fields: string[][]) => (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
      {fields.map(([field, label]) => (
        <LengthField
          key={field}
          label={label ?? ''}
          value={(keepOut as unknown as Record<string, number>)[field ?? ''] ?? 0}
          path={`${path}.${field}`}
          onCommit={(mm) => mm !== null && set({ [field ?? '']: mm })}
          disabled={readOnly}
        />
      ))}
    </Box>
  )
  return (
    <Box
      component="fieldset"
      sx={{
        border: `1px solid ${inks.line}`,
        m: 0,
        p: 1.5,
        display: 'flex',
        flexDirection: 'column',
        gap: 1.5,
        minWidth: 0,
      }}
    >
      <legend style={{ fontSize: 12, color: inks.quiet }}>{keepOut.name}</legend>
      <NameField value={keepOut.name} disabled={readOnly} onCommit={(name) => set({ name })} />
      {keepOut.kind === 'box' && lengths(BOX_FIELDS)}
      {keepOut.kind === 'cylinder' && (
        <>
          <Choice
            label="Axis direction"
            value={keepOut.axis}
            options={[
              { value: 'x', label: 'lengthwise' },
              { value: 'y', label: 'across' },
              { value: 'z', label: 'upright' },
            ]}
            disabled={readOnly}
            onChange={(axis) => set({ axis })}
          />
          {lengths(ROUND_FIELDS)}
          <Typography variant="body2" color="textSecondary">
            Measured to the middle of its {keepOut.axis === 'x' ? 'rear' : keepOut.axis === 'y' ? 'right' : 'lower'}{' '}
            end.
          </Typography>
        </>
      )}
      {keepOut.kind === 'slope' && <SlopeFields keepOut={keepOut} path={path} set={set} readOnly={readOnly} />}
      {keepOut.kind === 'scan' && (
        <>
          <ScanWords fingerprint={keepOut.scan} />
          <Choice
            label="Neighbour class"
            value={keepOut.is_cavity ? 'cavity' : 'part'}
            options={[
              { value: 'part', label: 'a part: the tank stays out of it' },
              { value: 'cavity', label: 'a cavity: the tank goes inside it' },
            ]}
            disabled={readOnly}
            onChange={(kind) => set({ is_cavity: kind === 'cavity' })}
          />
          {lengths(SCAN_FIELDS)}
        </>
      )}
      <ClearanceFields
        title="What it is"
        clearance={keepOut.clearance}
        path={`${path}.clearance.mm`}
        disabled={readOnly}
        onChange={(clearance) => set({ clearance })}
      />
      <Toggle
        label="Planned, not fitted yet"
        checked={keepOut.planned}
        disabled={readOnly}
        onChange={(planned) => set({ planned })}
      />
      <Button
        disabled={readOnly}
        onClick={() => setBay({ keep_outs: bay.keep_outs.filter((item) => item.id !== keepOut.id) })}
        aria-label={`Remove ${keepOut.name}`}
      >
        Remove
      </Button>
    </Box>
  )
}

const BLOCKED = {
  roof: 'above it',
  floor: 'below it',
  front: 'in front of it',
  rear: 'behind it',
  left: 'to its left',
  right: 'to its right',
} as const
const ALONG = { x: ['rear', 'front'], y: ['right', 'left'], z: ['floor', 'roof'] } as const

function SlopeFields({
  keepOut,
  path,
  set,
  readOnly,
}: {
  keepOut: Extract<KeepOut, { kind: 'slope' }>
  path: string
  set: (part: Record<string, unknown>) => void
  readOnly: boolean
}) {
  const own = { roof: 'z', floor: 'z', front: 'x', rear: 'x', left: 'y', right: 'y' }[keepOut.blocked]
  const along = (['x', 'y', 'z'] as const).filter((axis) => axis !== own)
  const [low, high] = ALONG[keepOut.along]
  const from = own === 'z' ? 'From floor' : own === 'x' ? 'From rear' : 'From right'
  return (
    <>
      <Choice
        label="Blocked side"
        value={keepOut.blocked}
        options={(Object.keys(BLOCKED) as (keyof typeof BLOCKED)[]).map((value) => ({ value, label: BLOCKED[value] }))}
        disabled={readOnly}
        onChange={(blocked) =>
          set({
            blocked,
            along: ({ roof: 'x', floor: 'x', front: 'z', rear: 'z', left: 'x', right: 'x' } as const)[blocked],
          })
        }
      />
      <Choice
        label="Inclined along"
        value={keepOut.along}
        options={along.map((value) => ({ value, label: `${ALONG[value][0]} to ${ALONG[value][1]}` }))}
        disabled={readOnly}
        onChange={(value) => set({ along: value })}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <LengthField
          label={`${from}, at the ${low}`}
          value={keepOut.start_mm}
          path={`${path}.start_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && set({ start_mm: mm })}
        />
        <LengthField
          label={`${from}, at the ${high}`}
          value={keepOut.end_mm}
          path={`${path}.end_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && set({ end_mm: mm })}
        />
      </Box>
    </>
  )
}

function ScanWords({ fingerprint }: { fingerprint: string }) {
  const scan = useQuery(scanQuery(fingerprint))
  const units = useUnits()
  if (scan.error)
    return (
      <Alert severity="warning">
        This scan isn’t kept in your workshop, so nothing is checked against it. Import its STL file again.
      </Alert>
    )
  if (!scan.data) return null
  const sizes = scan.data.high_mm.map((high, i) => units.length(high - (scan.data.low_mm[i] ?? 0)))
  return (
    <Typography variant="body2" color="textSecondary">
      {scan.data.triangles} triangles, {sizes.join(' × ')} {units.lengthUnit}; shown thinned, calculated whole.
    </Typography>
  )
}
