import { Box, Button, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { FillerRoute } from '../../api/model'
import { Choice, LengthField, QuantityField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { pair } from '../Row'
import { setMount } from './edits'

const LENGTHS = {
  x_mm: 'From the bay’s rear',
  y_mm: 'From the bay’s right',
  z_mm: 'From the bay’s floor',
  stub_mm: 'Pipe behind the opening',
  overlap_mm: 'Hose overlap, each end',
} as const
const ABOVE_MM = 200

/** The opening in the body that the tank is filled through. */
export function FillerFields({ readOnly }: { readOnly: boolean }) {
  const route = useWork((work) => work.design.mount.filler ?? null)
  const ports = useWork((work) => work.design.ports)
  const top = useWork((work) => work.evaluation?.shell?.geometry?.body ?? null)
  const fillers = ports.filter((port) => port.role === 'filler')
  const first = fillers[0]
  if (!first) return <Typography variant="body2">No filler yet: place one at Ports.</Typography>
  if (!route)
    return (
      <Button
        variant="outlined"
        disabled={readOnly || !top}
        onClick={() =>
          top &&
          setMount({
            filler: {
              ...declared.FillerRoute.defaults,
              port: first.id,
              x_mm: Math.round(top.low.x + first.x_mm),
              y_mm: Math.round(top.high.y + ABOVE_MM),
              z_mm: Math.round(top.high.z + ABOVE_MM),
            },
          })
        }
      >
        Fill it through an opening in the body
      </Button>
    )
  const set = (part: Partial<FillerRoute>) => setMount({ filler: { ...route, ...part } })
  return (
    <>
      <Choice
        label="Leads to"
        value={route.port}
        options={fillers.map((port) => ({ value: port.id, label: port.name }))}
        disabled={readOnly}
        onChange={(port) => set({ port })}
      />
      <Choice
        label="Faces"
        value={route.side}
        options={declared.FillerRoute.choices.side}
        disabled={readOnly}
        onChange={(side) => set({ side })}
      />
      <Box sx={pair}>
        {(Object.keys(LENGTHS) as (keyof typeof LENGTHS)[]).map((name) => (
          <LengthField
            key={name}
            label={LENGTHS[name]}
            value={route[name]}
            path={`mount.filler.${name}`}
            disabled={readOnly}
            onCommit={(mm) => mm !== null && set({ [name]: mm })}
          />
        ))}
        <QuantityField
          label="Faces up by"
          of="deg"
          value={route.up_deg}
          path="mount.filler.up_deg"
          disabled={readOnly}
          onCommit={(up_deg) => up_deg !== null && set({ up_deg })}
        />
      </Box>
      <Figures />
      <OldTank readOnly={readOnly} />
      <Button disabled={readOnly} onClick={() => setMount({ filler: null })}>
        Fill it at its own cap
      </Button>
    </>
  )
}

function Figures() {
  const units = useUnits()
  const made = useWork((work) => work.evaluation?.mount?.filler)
  if (!made) return null
  const near = (gap: number, at: string) => (at ? `${units.lengthUnitText(gap)} to ${at}` : 'free')
  return (
    <>
      <Typography variant="body2" data-filler={made.port}>
        Fill hose {units.lengthUnitText(made.hose_mm)} long, vent hose {units.lengthUnitText(made.vent_mm)}, falls{' '}
        {units.quantity('deg', made.fall_deg)}. Hand: {near(made.hand_mm, made.hand_at)}. Nozzle:{' '}
        {near(made.nozzle_mm, made.nozzle_at)}. Rising fuel seen from {units.quantity('pct', made.sees)} of the places
        round it.
      </Typography>
      <Pieces />
    </>
  )
}

/** Cut lengths and end angles, from the tank outward. */
function Pieces() {
  const units = useUnits()
  const pieces = useWork((work) => work.evaluation?.mount?.filler_pieces) ?? []
  const angle = (deg: number) => units.quantity('deg', deg)
  return pieces.map((one) => (
    <Typography key={one.what} variant="body2" data-filler-piece={one.what}>
      {one.what}: {units.cut(one.cut_mm)} {units.inches ? '' : 'mm'};{' '}
      {one.what.includes('hose')
        ? `turns ${angle(one.first_deg)} at the tank, ${angle(one.last_deg)} at the body, pushed on ${units.lengthUnitText(one.pushed_mm)}`
        : `cut ${angle(one.last_deg)} off square at its outer end`}
    </Typography>
  ))
}

/** What can only be measured while the old tank is in: asked for then. */
function OldTank({ readOnly }: { readOnly: boolean }) {
  const units = useUnits()
  const state = useWork((work) => work.design.mount.old_tank)
  const taken = useWork((work) => work.design.mount.old_measures)
  const asked = useWork((work) => work.evaluation?.mount?.old_measured) ?? []
  const measure = (name: (typeof taken)[number]['name'], value_mm: number | null) => {
    const others = taken.filter((one) => one.name !== name)
    setMount({ old_measures: value_mm === null ? others : [...others, { name, value_mm }] })
  }
  return (
    <>
      <Choice
        label="Old tank"
        value={state}
        options={declared.Mount.choices.old_tank}
        hint="what only it shows is asked for while it is in"
        disabled={readOnly}
        onChange={(old_tank) => setMount({ old_tank })}
      />
      {asked.map((one) => (
        <LengthField
          key={one.name}
          label={one.name.charAt(0).toUpperCase() + one.name.slice(1)}
          value={one.measured_mm ?? null}
          emptyText={state === 'out' ? 'not taken' : 'measure it now'}
          hint={one.drawn_mm === null ? undefined : `drawn ${units.lengthUnitText(one.drawn_mm)}`}
          disabled={readOnly}
          onCommit={(mm) => measure(one.name, mm)}
        />
      ))}
    </>
  )
}
