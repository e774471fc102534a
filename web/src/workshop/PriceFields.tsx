import { Box, TextField } from '@mui/material'
import * as declared from '../api/declared'
import type { Fault } from '../api/client'
import { NumberField, QuantityField } from '../fields/fields'
import { grid, Section } from './Section'
import type { Settings } from './WorkshopPage'

type Prices = NonNullable<Settings['prices']>
type PerKg = NonNullable<Prices['metal_per_kg']>
type Metal = keyof PerKg

const PRICES = [
  ['weld_per_m', 'Weld price', 'time, gas, rod, finishing', 'perm'],
  ['hours_per_m', 'Welding hours', 'cut, fitted, welded, dressed', 'perm'],
  ['per_hour', 'Price of an hour', 'for work beside seams', null],
  ['minutes_per_bend', 'Minutes per bend', 'marked out and checked', null],
  ['minutes_per_port', 'Minutes per port', 'laid out, cut, boss welded in', null],
  ['minutes_per_fitting', 'Minutes per valve or strap', 'fitted', null],
  ['per_fitting', 'Price of a valve or strap', 'as bought', null],
  ['foam_per_l', 'Foam price', '', 'perl'],
  ['bladder', 'Bladder price', 'made to size', null],
  ['surge_tank', 'Surge tank price', 'with its pump and hoses', null],
] as const

/** Prices by metal with one set, or taken out. */
const priced = (all: PerKg, metal: Metal, value: number | null): PerKg =>
  Object.fromEntries([
    ...Object.entries(all).filter(([name]) => name !== metal),
    ...(value === null ? [] : [[metal, value]]),
  ]) as PerKg

interface Props {
  settings: Settings
  mayWrite: boolean
  fault: (path: string) => Fault | undefined
  onChange: (settings: Settings) => void
}

/** What work and metal cost here. */
export function PriceFields({ settings, mayWrite, fault, onChange }: Props) {
  const prices = settings.prices ?? {}
  const setPrices = (part: Partial<Prices>) => onChange({ ...settings, prices: { ...prices, ...part } })
  return (
    <Section
      title="Prices"
      about="Remedies and insides are set side by side in minutes and money by them. What isn’t typed isn’t guessed."
    >
      <Box sx={grid}>
        <TextField
          label="Currency"
          value={prices.currency ?? ''}
          disabled={!mayWrite}
          onChange={(event) => setPrices({ currency: event.target.value.slice(0, declared.Prices.most.currency) })}
        />
        {PRICES.map(([name, label, hint, of]) => {
          const field = {
            label,
            hint,
            value: prices[name] ?? null,
            emptyText: 'none',
            disabled: !mayWrite,
            fault: fault(`prices.${name}`),
            onCommit: (value: number | null) => setPrices({ [name]: value }),
          }
          return of ? <QuantityField key={name} of={of} {...field} /> : <NumberField key={name} {...field} />
        })}
        {Object.keys(settings.k_factors ?? {}).map((metal) => (
          <QuantityField
            key={metal}
            of="perkg"
            label={`Price of ${metal}`}
            emptyText="none"
            value={prices.metal_per_kg?.[metal as Metal] ?? null}
            disabled={!mayWrite}
            fault={fault(`prices.metal_per_kg.${metal}`)}
            onCommit={(value) => setPrices({ metal_per_kg: priced(prices.metal_per_kg ?? {}, metal as Metal, value) })}
          />
        ))}
      </Box>
    </Section>
  )
}
