import { TextField } from '@mui/material'
import * as declared from '../api/declared'
import type { Fault, Schemas } from '../api/client'
import { BoreField, Choice, LengthField, NumberField, QuantityField } from '../fields/fields'
import { Listed } from './Listed'

type Bender = Schemas['TubeBender']
type Hose = Schemas['HoseStock']
type Booked = Schemas['BookPrice']

interface Props<T> {
  items: T[]
  disabled: boolean
  fault: (path: string) => Fault | undefined
  onChange: (items: T[]) => void
}

/** Benders for tube, one for each die, with a strip bent on it: angles left and how far each sprang back. */
export function Benders({ items, disabled, fault, onChange }: Props<Bender>) {
  return (
    <Listed
      items={items}
      disabled={disabled}
      add="Add a bender"
      fresh={() => ({ ...declared.TubeBender.defaults, name: `Bender ${items.length + 1}` })}
      onChange={onChange}
    >
      {(bender, place, set) => (
        <>
          <TextField
            label="Name"
            value={bender.name}
            disabled={disabled}
            onChange={(event) => set({ name: event.target.value.slice(0, declared.TubeBender.most.name) })}
          />
          <LengthField
            label="For tube of outside"
            value={bender.outside_mm ?? null}
            disabled={disabled}
            fault={fault(`benders.${place}.outside_mm`)}
            onCommit={(value) => value !== null && set({ outside_mm: value })}
          />
          <LengthField
            label="Bend radius, to the middle"
            value={bender.radius_mm ?? null}
            disabled={disabled}
            fault={fault(`benders.${place}.radius_mm`)}
            onCommit={(value) => value !== null && set({ radius_mm: value })}
          />
          <LengthField
            label="Least straight it holds"
            value={bender.grip_mm ?? null}
            disabled={disabled}
            fault={fault(`benders.${place}.grip_mm`)}
            onCommit={(value) => set({ grip_mm: value ?? 0 })}
          />
          <SpringBack
            strip={bender.springback ?? []}
            disabled={disabled}
            fault={(path) => fault(`benders.${place}.springback.${path}`)}
            onChange={(springback) => set({ springback })}
          />
        </>
      )}
    </Listed>
  )
}

type Strip = NonNullable<Bender['springback']>

/** A strip's bends; one more is typed into the empty pair at the end, one without its angle goes. */
function SpringBack({
  strip,
  disabled,
  fault,
  onChange,
}: {
  strip: Strip
  disabled: boolean
  fault: (path: string) => Fault | undefined
  onChange: (strip: Strip) => void
}) {
  const rows = strip.length < declared.TubeBender.most.springback && !disabled ? [...strip, null] : strip
  const put = (place: number, angle: number | null, back: number) =>
    onChange(
      angle === null
        ? strip.filter((_, n) => n !== place)
        : [...strip.slice(0, place), { angle_deg: angle, back_deg: back }, ...strip.slice(place + 1)],
    )
  return rows.flatMap((row, place) => [
    <NumberField
      key={`angle-${place}`}
      label={`Strip, angle left ${place + 1}`}
      unit="°"
      value={row?.angle_deg ?? null}
      emptyText="none"
      disabled={disabled}
      fault={fault(`${place}.angle_deg`)}
      onCommit={(angle) => put(place, angle, row?.back_deg ?? 0)}
    />,
    <NumberField
      key={`back-${place}`}
      label={`Sprang back ${place + 1}`}
      unit="°"
      value={row?.back_deg ?? null}
      emptyText="none"
      disabled={disabled || !row}
      fault={fault(`${place}.back_deg`)}
      onCommit={(back) => row && put(place, row.angle_deg, back ?? 0)}
    />,
  ])
}

/** Hoses by the metre, by their cards. */
export function HoseStocks({ items, disabled, fault, onChange }: Props<Hose>) {
  return (
    <Listed
      items={items}
      disabled={disabled}
      add="Add a hose"
      fresh={() => ({ ...declared.HoseStock.defaults, name: `Hose ${items.length + 1}` })}
      onChange={onChange}
    >
      {(hose, place, set) => (
        <>
          <TextField
            label="Name"
            value={hose.name}
            disabled={disabled}
            onChange={(event) => set({ name: event.target.value.slice(0, declared.HoseStock.most.name) })}
          />
          <Choice
            label="Made of"
            value={hose.hose ?? declared.HoseStock.defaults.hose}
            options={declared.HoseStock.choices.hose}
            disabled={disabled}
            onChange={(made) => set({ hose: made })}
          />
          <BoreField
            label="Bore"
            value={hose.bore_mm ?? null}
            disabled={disabled}
            fault={fault(`hoses.${place}.bore_mm`)}
            onCommit={(value) => value !== null && set({ bore_mm: value })}
          />
          <LengthField
            label="Tightest bend, to the middle"
            value={hose.least_radius_mm ?? null}
            emptyText="not known"
            disabled={disabled}
            fault={fault(`hoses.${place}.least_radius_mm`)}
            onCommit={(least_radius_mm) => set({ least_radius_mm })}
          />
          <QuantityField
            label="Rated pressure"
            of="kpa"
            value={hose.rated_kpa ?? null}
            emptyText="not known"
            disabled={disabled}
            fault={fault(`hoses.${place}.rated_kpa`)}
            onCommit={(rated_kpa) => set({ rated_kpa })}
          />
          <NumberField
            label="Price of a metre"
            value={hose.per_m ?? null}
            emptyText="not known"
            disabled={disabled}
            fault={fault(`hoses.${place}.per_m`)}
            onCommit={(per_m) => set({ per_m })}
          />
        </>
      )}
    </Listed>
  )
}

/** Small things with what one costs, who has it, how many are on the shelf; named as tables and lists name them. */
export function PriceBook({ items, disabled, fault, onChange }: Props<Booked>) {
  return (
    <Listed
      items={items}
      disabled={disabled}
      add="Add a line"
      fresh={() => ({ ...declared.BookPrice.defaults, name: `Line ${items.length + 1}` })}
      onChange={onChange}
    >
      {(line, place, set) => (
        <>
          <TextField
            label="Name"
            value={line.name}
            disabled={disabled}
            onChange={(event) => set({ name: event.target.value.slice(0, declared.BookPrice.most.name) })}
          />
          <NumberField
            label="Price of one, or of a metre"
            value={line.price ?? null}
            emptyText="not known"
            disabled={disabled}
            fault={fault(`price_book.${place}.price`)}
            onCommit={(price) => set({ price })}
          />
          <TextField
            label="Supplier"
            value={line.supplier ?? ''}
            disabled={disabled}
            onChange={(event) => set({ supplier: event.target.value.slice(0, declared.BookPrice.most.supplier) })}
          />
          <NumberField
            label="On the shelf"
            value={line.on_shelf ?? 0}
            disabled={disabled}
            fault={fault(`price_book.${place}.on_shelf`)}
            onCommit={(count) => set({ on_shelf: count ?? 0 })}
          />
        </>
      )}
    </Listed>
  )
}
