import { Box, Button, TextField } from '@mui/material'
import * as declared from '../api/declared'
import type { Fault, Schemas } from '../api/client'
import { NumberField, QuantityField, ShareField } from '../fields/fields'
import { useUnits } from '../units/useUnits'
import { grid, Section } from './Section'
import type { Settings } from './WorkshopPage'

type Gauge = Schemas['TestGauge']
type Rules = NonNullable<Settings['rules']>

interface Props {
  settings: Settings
  usual: Settings
  mayWrite: boolean
  fault: (path: string) => Fault | undefined
  onChange: (settings: Settings) => void
}

/** What leak tests are judged by, and the gauges that they are read from. */
export function LeakTests({ settings, usual, mayWrite, fault, onChange }: Props) {
  const units = useUnits()
  const rules = settings.rules ?? {}
  const gauges = settings.test_gauges ?? []
  const rule = (name: keyof Rules, text: (value: number) => string) => ({
    value: (rules[name] as number | undefined) ?? null,
    onCommit: (value: number | null) =>
      value !== null && onChange({ ...settings, rules: { ...rules, [name]: value } as Rules }),
    fault: fault(`rules.${name}`),
    disabled: !mayWrite,
    hint: `usual ${text((usual.rules?.[name] as number | undefined) ?? 0)}`,
  })
  const kpa = (value: number) => units.quantity('kpa', value)
  const min = (value: number) => units.quantity('min', value)
  const set = (place: number, part: Partial<Gauge>) =>
    onChange({ ...settings, test_gauges: gauges.map((one, n) => (n === place ? { ...one, ...part } : one)) })
  return (
    <Section
      title="Leak tests"
      about="A test lasts until its gauge and thermometer would show the largest leak allowed: the finer they are, the shorter it is."
    >
      <Box sx={grid}>
        <QuantityField of="kpa" label="Usual test pressure" {...rule('proof_kpa', kpa)} />
        <QuantityField of="kpa" label="Highest test pressure" {...rule('proof_cap_kpa', kpa)} />
        <QuantityField
          of="sccm"
          label="Leak that passes, at most"
          {...rule('leak_limit_sccm', (value) => units.quantity('sccm', value))}
        />
        <NumberField
          label="Length factor k"
          {...rule('decay_length_factor', (value) => `${units.number(value, 0)} last digits of the gauge`)}
        />
        <ShareField
          label="Vapour in a tested tank, at most"
          {...rule('vapour_most', (value) => `${units.number(100 * value, 0)} % of the lower explosive limit`)}
        />
        <QuantityField of="min" label="Age of that reading, at most" {...rule('vapour_oldest_min', min)} />
        <QuantityField of="min" label="Time submerged, at least" {...rule('submerged_min', min)} />
        <QuantityField of="min" label="Time on dry paper, at least" {...rule('on_paper_min', min)} />
        <NumberField
          label="Calibration age, months"
          {...rule('calibration_months', (value) => `${units.number(value, 0)} at most`)}
        />
      </Box>
      {gauges.map((gauge, place) => (
        <Box key={place} role="group" aria-label={gauge.name ?? 'gauge'} sx={{ mt: 3 }}>
          <Box sx={grid}>
            <TextField
              label="Gauge"
              value={gauge.name}
              disabled={!mayWrite}
              onChange={(event) => set(place, { name: event.target.value.slice(0, declared.TestGauge.most.name) })}
            />
            <QuantityField
              of="kpa"
              label="End of its scale"
              value={gauge.most_kpa ?? null}
              disabled={!mayWrite}
              fault={fault(`test_gauges.${place}.most_kpa`)}
              onCommit={(value) => value !== null && set(place, { most_kpa: value })}
            />
            <QuantityField
              of="finekpa"
              label="Last digit, gauge"
              value={gauge.resolution_kpa ?? null}
              disabled={!mayWrite}
              fault={fault(`test_gauges.${place}.resolution_kpa`)}
              onCommit={(value) => value !== null && set(place, { resolution_kpa: value })}
            />
            <NumberField
              label="Last digit, thermometer, K"
              value={gauge.temperature_resolution_k ?? null}
              disabled={!mayWrite}
              fault={fault(`test_gauges.${place}.temperature_resolution_k`)}
              onCommit={(value) => value !== null && set(place, { temperature_resolution_k: value })}
            />
            <QuantityField
              of="barokpa"
              label="Last digit, barometer"
              value={gauge.barometer_resolution_kpa ?? null}
              disabled={!mayWrite}
              fault={fault(`test_gauges.${place}.barometer_resolution_kpa`)}
              onCommit={(value) => value !== null && set(place, { barometer_resolution_kpa: value })}
            />
            <TextField
              type="date"
              label="Calibrated last"
              value={gauge.calibrated ?? ''}
              disabled={!mayWrite}
              error={Boolean(fault(`test_gauges.${place}.calibrated`))}
              slotProps={{ inputLabel: { shrink: true } }}
              onChange={(event) => set(place, { calibrated: event.target.value || null })}
            />
          </Box>
          {mayWrite && gauges.length > 1 && (
            <Button onClick={() => onChange({ ...settings, test_gauges: gauges.filter((_, n) => n !== place) })}>
              Remove {gauge.name}
            </Button>
          )}
        </Box>
      ))}
      {mayWrite && (
        <Button
          variant="outlined"
          sx={{ mt: 2 }}
          onClick={() =>
            onChange({
              ...settings,
              test_gauges: [...gauges, { ...declared.TestGauge.defaults, name: `Gauge ${gauges.length + 1}` }],
            })
          }
        >
          Add a test gauge
        </Button>
      )}
    </Section>
  )
}
