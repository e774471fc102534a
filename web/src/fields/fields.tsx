import { FormControlLabel, MenuItem, Switch, TextField } from '@mui/material'
import { memo } from 'react'
import { shallow } from 'zustand/shallow'
import { parseBore } from '../units/bore'
import type { Parsed } from '../units/length'
import type { Ending } from '../units/quantity'
import { gaugeText, parseSheet } from '../units/sheet'
import { useUnits } from '../units/useUnits'
import type { Fault } from '../api/client'
import { useFault } from '../work/store'
import { TypedField } from './TypedField'
import { useLatest } from './useLatest'

interface Common {
  label: string
  value: number | null
  onCommit: (value: number | null) => void
  emptyText?: string | undefined
  fault?: Fault | string | undefined
  hint?: string | undefined
  disabled?: boolean | undefined
  compact?: boolean | undefined
  /** Where in the design it is kept: the core's complaint about it is shown. */
  path?: string
}

/** A complaint in words; one about a limit calls the field what its label does. */
export const saidOf = ({ message, limit }: Fault, label: string) =>
  message.endsWith(` must be ${limit}`) ? `${label} must be ${limit}` : message

/** What is wrong with a field's value, in the reader's units. */
function useWrong({ path, fault, label }: Common): string | undefined {
  const units = useUnits()
  const told = useFault(path ?? '')
  const wrong = fault ?? told
  return wrong && units.inText(typeof wrong === 'string' ? wrong : saidOf(wrong, label))
}

export function LengthField(props: Common) {
  const units = useUnits()
  return (
    <TypedField
      {...props}
      fault={useWrong(props)}
      unit={units.lengthUnit}
      edit={units.editLength}
      parse={units.parseLength}
    />
  )
}

/** A bore: a length, or the dash size of a hose. */
export function BoreField(props: Common) {
  const units = useUnits()
  return (
    <TypedField
      {...props}
      hint={props.hint ?? 'or a hose’s dash size: -8'}
      fault={useWrong(props)}
      unit={units.lengthUnit}
      edit={units.editLength}
      parse={(text) => parseBore(text, units.inches)}
    />
  )
}

/** A thickness of sheet: a length, or the metal's gauge number. */
export function SheetField({ metal, ...props }: Common & { metal: string }) {
  const units = useUnits()
  const gauge = units.inches && props.value !== null ? gaugeText(metal, props.value) : ''
  const hint = [gauge, props.hint].filter(Boolean).join('; ') || undefined
  return (
    <TypedField
      {...props}
      hint={hint}
      fault={useWrong(props)}
      unit={units.lengthUnit}
      edit={units.editLength}
      parse={(text) => parseSheet(text, metal, units.inches)}
    />
  )
}

export function VolumeField(props: Common) {
  const units = useUnits()
  return (
    <TypedField
      {...props}
      fault={useWrong(props)}
      unit={units.volumeUnit}
      edit={units.editVolume}
      parse={units.parseVolume}
    />
  )
}

/** A quantity in any unit of its kind. */
export function QuantityField({ of, ...props }: Common & { of: Ending }) {
  const units = useUnits()
  return (
    <TypedField
      {...props}
      fault={useWrong(props)}
      unit={units.unit(of)}
      edit={(value) => units.editQuantity(of, value)}
      parse={(text) => units.parseQuantity(of, text)}
    />
  )
}

/** A wire's copper: square millimetres, or an American gauge. */
export function WireField(props: Common) {
  const units = useUnits()
  return (
    <TypedField
      {...props}
      fault={useWrong(props)}
      unit={units.wireUnit}
      edit={units.editWire}
      parse={units.parseWire}
    />
  )
}

/** A flow an hour. */
export function FlowField(props: Common) {
  const units = useUnits()
  return (
    <TypedField
      {...props}
      fault={useWrong(props)}
      unit={units.unit('lph')}
      edit={units.editFlow}
      parse={units.parseFlow}
    />
  )
}

interface ToggleProps {
  compact?: boolean
  label: string
  checked: boolean
  disabled?: boolean
  onChange: (checked: boolean) => void
}

/** On or off. */
export function Toggle({ onChange, ...shown }: ToggleProps) {
  return <Switching {...shown} onChange={useLatest(onChange)} />
}

const Switching = memo(function Switching({ label, checked, disabled = false, compact, onChange }: ToggleProps) {
  const control = (
    <Switch
      size={compact ? 'small' : 'medium'}
      checked={checked}
      disabled={disabled}
      onChange={(event) => onChange(event.target.checked)}
    />
  )
  const small = { mr: 0, '& .MuiFormControlLabel-label': { fontSize: 13 } }
  return <FormControlLabel control={control} label={label} sx={compact ? small : null} />
})

/** Yes, no, or not looked at yet. */
export function AskedField({
  label,
  value,
  disabled,
  onChange,
}: {
  label: string
  value: boolean | null | undefined
  disabled: boolean
  onChange: (value: boolean | null) => void
}) {
  const text = value === true ? 'yes' : value === false ? 'no' : 'not looked at'
  return (
    <Choice
      label={label}
      value={text}
      options={['not looked at', 'yes', 'no']}
      disabled={disabled}
      onChange={(next) => onChange(next === 'yes' ? true : next === 'no' ? false : null)}
    />
  )
}

function parseNumber(text: string): Parsed {
  const value = Number(text.trim().replace(',', '.'))
  return text.trim() && Number.isFinite(value)
    ? { ok: true, value }
    : { ok: false, reason: `“${text.trim()}” is not a number` }
}

const trimmed = (value: number) => String(Number(value.toFixed(6)))

/** A plain number with a fixed unit. */
export function NumberField({ unit = '', ...props }: Common & { unit?: string }) {
  return <TypedField {...props} fault={useWrong(props)} unit={unit} edit={trimmed} parse={parseNumber} />
}

/** A share, shown and typed as per cent. */
export function ShareField(props: Common) {
  const wrong = useWrong(props)?.replace(/\d+(\.\d+)?(?= or| and|$)/g, (share) => `${trimmed(Number(share) * 100)} %`)
  return (
    <TypedField
      {...props}
      fault={wrong}
      unit="%"
      edit={(value) => trimmed(value * 100)}
      parse={(text) => {
        const read = parseNumber(text.replace('%', ''))
        return read.ok ? { ok: true, value: read.value / 100 } : read
      }}
    />
  )
}

interface ChoiceProps<T extends string> {
  label: string
  value: T
  options: readonly (T | { value: T; label: string })[]
  onChange: (value: T) => void
  hint?: string | undefined
  disabled?: boolean | undefined
}

export function Choice<T extends string>({ options, onChange, ...shown }: ChoiceProps<T>) {
  const choose = useLatest((value: string) => onChange(value as T))
  const items = options.map((option) => (typeof option === 'string' ? { value: option, label: option } : option))
  return <Choosing {...shown} items={items} choose={choose} />
}

interface ChoosingProps {
  label: string
  value: string
  items: readonly { value: string; label: string }[]
  choose: (value: string) => void
  hint?: string | undefined
  disabled?: boolean | undefined
}

const sameItems = (one: ChoosingProps['items'], other: ChoosingProps['items']) =>
  one.length === other.length &&
  one.every((item, place) => item.value === other[place]?.value && item.label === other[place].label)

/** The list itself, drawn anew only where it shows something else. */
const Choosing = memo(
  function Choosing({ label, value, items, choose, hint, disabled }: ChoosingProps) {
    return (
      <TextField
        select
        label={label}
        value={value}
        disabled={Boolean(disabled)}
        helperText={hint}
        onChange={(event) => choose(event.target.value)}
        slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
      >
        {items.map((item) => (
          <MenuItem key={item.value} value={item.value} sx={{ minHeight: 44 }}>
            {item.label}
          </MenuItem>
        ))}
      </TextField>
    )
  },
  ({ items, ...one }, { items: others, ...other }) => shallow(one, other) && sameItems(items, others),
)

/** A choice that may be left open. */
export function MaybeChoice<T extends string>({
  value,
  options,
  none,
  onChange,
  ...props
}: Omit<ChoiceProps<T>, 'value' | 'options' | 'onChange'> & {
  value: T | null | undefined
  options: readonly T[]
  none: string
  onChange: (value: T | null) => void
}) {
  return (
    <Choice<T | ''>
      {...props}
      value={value ?? ''}
      options={[{ value: '', label: none }, ...options]}
      onChange={(next) => onChange(next === '' ? null : next)}
    />
  )
}
