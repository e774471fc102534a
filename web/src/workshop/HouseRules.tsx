import { Box } from '@mui/material'
import type { Fault } from '../api/client'
import { LengthField, NumberField, QuantityField, ShareField } from '../fields/fields'
import { useUnits } from '../units/useUnits'
import { grid, Section } from './Section'
import type { Settings } from './WorkshopPage'

type Rules = NonNullable<Settings['rules']>
type Name = Exclude<keyof Rules, 'clearances_mm'>

interface Props {
  settings: Settings
  usual: Settings
  mayWrite: boolean
  fault: (path: string) => Fault | undefined
  onChange: (settings: Settings) => void
}

/** What the house decides by: rules and clearances, each beside what is usual. */
export function HouseRules({ settings, usual, mayWrite, fault, onChange }: Props) {
  const units = useUnits()
  const rules = settings.rules ?? {}
  const setRule = (name: keyof Rules) => (value: number | null) =>
    value !== null && onChange({ ...settings, rules: { ...rules, [name]: value } })
  const usualText = (name: Name) =>
    name.endsWith('_mm')
      ? `usual ${units.editLength(usual.rules?.[name] ?? 0)} ${units.lengthUnit}`
      : `usual ${units.byName(name, usual.rules?.[name] ?? 0)}`
  const rule = (name: Name) => ({
    value: rules[name] ?? null,
    onCommit: setRule(name),
    fault: fault(`rules.${name}`),
    disabled: !mayWrite,
    hint: usualText(name),
  })
  const share = (name: Name) => ({
    ...rule(name),
    hint: `usual ${units.quantity('pct', usual.rules?.[name] ?? 0, 0)}`,
  })
  return (
    <>
      <Section title="House rules" about="Defaults that decide something. Wherever one does, it is named.">
        <Box sx={grid}>
          <QuantityField label="Ullage: temperature rise allowed" of="k" {...rule('ullage_rise_k')} />
          <ShareField label="Ullage, at least" {...share('ullage_least')} />
          <ShareField label="Capacity above target, at most" {...share('beyond_target')} />
          <LengthField label="Pan flange" {...rule('flange_mm')} />
          <LengthField label="Pan flange, at least" {...rule('flange_least_mm')} />
          <LengthField label="Pan gap, each side" {...rule('pan_gap_mm')} />
          <LengthField label="Notch clearance" {...rule('notch_clearance_mm')} />
          <LengthField
            label="Land for a weld, at least"
            {...rule('land_mm')}
            hint={`between a seam and a bend or seam; ${usualText('land_mm')}`}
          />
          <LengthField
            label="Space inside, at least"
            {...rule('sliver_mm')}
            hint={`that can be welded and cleaned; ${usualText('sliver_mm')}`}
          />
          <QuantityField
            label="Leak-test pressure, at least"
            of="kpa"
            {...rule('proof_least_kpa')}
            hint={`a shell that bears less is remarked on; ${usualText('proof_least_kpa')}`}
          />
          <QuantityField
            label="Bump load on the floor"
            of="g"
            {...rule('bump_g')}
            hint={`extra, vertical; ${usualText('bump_g')}`}
          />
          <QuantityField
            label="Horizontal load on uprights"
            of="g"
            {...rule('push_g')}
            hint={`a full cell against an upright or a partition; ${usualText('push_g')}`}
          />
          <ShareField label="Stress allowed, share of welded yield" {...share('stress_share')} />
          <QuantityField label="Mount load lengthwise, road" of="g" {...rule('road_lengthwise_g')} />
          <QuantityField label="Mount load sideways, road" of="g" {...rule('road_sideways_g')} />
          <QuantityField label="Mount load up and down, road" of="g" {...rule('road_vertical_g')} />
          <QuantityField label="Mount load lengthwise, competition" of="g" {...rule('competition_lengthwise_g')} />
          <QuantityField label="Mount load sideways, competition" of="g" {...rule('competition_sideways_g')} />
          <QuantityField label="Mount load up and down, competition" of="g" {...rule('competition_vertical_g')} />
          <QuantityField label="Fall of a fill hose, at least" of="deg" {...rule('filler_fall_deg')} />
          <LengthField label="Fill hose overlap, at least" {...rule('filler_overlap_mm')} />
          <LengthField label="New holes off seams, at least" {...rule('seam_clear_mm')} />
          <NumberField
            label="Mount reserve against yield, at least"
            {...rule('mount_reserve')}
            hint={`times the load; ${usualText('mount_reserve')}`}
          />
          <ShareField label="Pump flow margin" {...share('pump_margin')} />
          <ShareField label="Surge volume margin" {...share('surge_margin')} />
          <ShareField label="Fuel’s share of the vehicle, at most" {...share('fuel_share')} />
          <LengthField label="Unbaffled run, at most" {...rule('free_run_mm')} />
          <ShareField label="Baffle open area, at least" {...share('clear_least')} />
          <ShareField label="Baffle open area, at most" {...share('clear_most')} />
          <QuantityField label="Starvation map: largest acceleration" of="g" {...rule('starvation_most_g')} />
          <LengthField label="Torch reach" {...rule('torch_reach_mm')} />
          <LengthField label="Brush width" {...rule('brush_mm')} />
          <LengthField label="Sleeve compression" {...rule('sleeve_mm')} />
          <LengthField label="Measurement tolerance" {...rule('measure_mm')} />
          <QuantityField label="Nozzle shut-off pressure" of="kpa" {...rule('back_pressure_kpa')} />
          <QuantityField label="Vacuum while drawing, at most" of="kpa" {...rule('vent_vacuum_kpa')} />
        </Box>
      </Section>
      <Section title="Lines" about="What hoses, tubes and pumps are judged by.">
        <Box sx={grid}>
          <LengthField label="Between clamps, at most" {...rule('clamp_every_mm')} />
          <LengthField label="From a line to its clamp’s foot, at most" {...rule('clamp_reach_mm')} />
          <LengthField label="Off what it could rub on" {...rule('rub_mm')} />
          <LengthField label="Off the edge of a sheet" {...rule('edge_mm')} />
          <LengthField label="Vent off people and what is hot" {...rule('vent_off_mm')} />
          <LengthField label="Hose to the manifold, at most" {...rule('reference_mm')} />
          <NumberField
            label="Hose rating"
            {...rule('hose_reserve')}
            hint={`times the highest pressure; ${usualText('hose_reserve')}`}
          />
          <QuantityField label="Bead asked for above" of="kpa" {...rule('beaded_above_kpa')} />
          <QuantityField label="Rail pressure off, at most" of="kpa" {...rule('short_kpa')} />
          <QuantityField label="Inlet over vapour pressure, at least" of="kpa" {...rule('inlet_margin_kpa')} />
        </Box>
      </Section>
      <Section title="Wiring" about="What wires, fuses and bonds are judged by.">
        <Box sx={grid}>
          <QuantityField label="Lost in wires and contacts, at most" of="v" {...rule('wire_drop_v')} />
          <LengthField label="Spare at each end of a wire" {...rule('wire_spare_mm')} />
          <LengthField label="From the battery to a fuse, at most" {...rule('unfused_mm')} />
          <QuantityField label="Bond, at most" of="ohm" {...rule('bond_ohm')} />
          <QuantityField label="Lines held at working pressure for" of="min" {...rule('line_hold_min')} />
          <ShareField label="Pressure a held line may lose" {...share('line_fall')} />
        </Box>
      </Section>
      <Section title="Clearances" about="Least gap by kind of neighbour.">
        <Box sx={grid}>
          {Object.entries(rules.clearances_mm ?? {}).map(([kind, mm]) => (
            <LengthField
              key={kind}
              label={kind}
              value={mm}
              disabled={!mayWrite}
              fault={fault(`rules.clearances_mm.${kind}`)}
              onCommit={(value) =>
                value !== null &&
                onChange({
                  ...settings,
                  rules: {
                    ...rules,
                    clearances_mm: { ...rules.clearances_mm, [kind]: value } as Rules['clearances_mm'],
                  },
                })
              }
            />
          ))}
        </Box>
      </Section>
    </>
  )
}
