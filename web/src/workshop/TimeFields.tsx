import { Box, Button, TextField } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { api, asked, type Fault, type Schemas } from '../api/client'
import { NumberField, QuantityField } from '../fields/fields'
import { useUnits } from '../units/useUnits'
import { grid, Section } from './Section'
import type { Settings } from './WorkshopPage'

type Rates = NonNullable<Settings['rates']>
type Prices = NonNullable<Settings['prices']>
type Seen = Schemas['RateSeen']
type Work = Seen['work']
type Per = 'perm' | 'persqm' | null

/** Kinds of work: the field that has their rate, what it is called, by what it goes. */
const TIMES: readonly [Work, keyof Rates, string, Per][] = [
  ['receive', 'receive_min_each', 'Counting in a bought piece, min', null],
  ['prepare', 'prepare_min_per_m2', 'Preparing sheet, min', 'persqm'],
  ['cut', 'cut_min_per_m', 'Cutting, min', 'perm'],
  ['deburr', 'deburr_min_per_m', 'Deburring, min', 'perm'],
  ['roll', 'roll_min_each', 'Rolling a piece, min', null],
  ['join', 'join_min_each', 'Joining crossed plates, min', null],
  ['tack', 'tack_min_per_m', 'Fitting and tacking, min', 'perm'],
  ['weld', 'weld_min_per_m', 'Welding, min', 'perm'],
  ['clean', 'clean_min_each', 'Cleaning a room inside, min', null],
  ['look', 'look_min_each', 'Looking over a room, min', null],
  ['dress', 'dress_min_per_m', 'Dressing seams, min', 'perm'],
  ['send', 'send_min_each', 'Sending out a part, min', null],
  ['plug', 'plug_min_each', 'Plugging an opening, min', null],
  ['trim', 'trim_min_each', 'Cutting a hanger piece, min', null],
  ['prove', 'prove_min_each', 'Leak test of a cell, min', null],
  ['cover', 'cover_min_per_m2', 'Priming and painting, min', 'persqm'],
  ['commission', 'commission_min_each', 'A step from first fuel to hand-over, min', null],
]
/** Those that stand among the prices. */
const PRICED: readonly [Work, keyof Prices, string][] = [
  ['bend', 'minutes_per_bend', 'bends'],
  ['seat', 'minutes_per_port', 'ports'],
  ['fit', 'minutes_per_fitting', 'valves and straps'],
]
const NAME_MOST = 80

interface Props {
  settings: Settings
  mayWrite: boolean
  fault: (path: string) => Fault | undefined
  onChange: (settings: Settings) => void
}

/** How long work takes here, typed, beside what it has taken at the bench. */
export function TimeFields({ settings, mayWrite, fault, onChange }: Props) {
  const rates = settings.rates ?? {}
  const seen = useQuery({ queryKey: ['times'], queryFn: () => asked(api.GET('/api/workshop/times')) }).data ?? []
  const of = (work: Work) => seen.find((one) => one.work === work)
  const setRates = (part: Partial<Rates>) => onChange({ ...settings, rates: { ...rates, ...part } })
  return (
    <Section
      title="Times"
      about="The order of work is planned with them. The median of the last ten times at the bench becomes the next rate when somebody accepts it."
    >
      <Box sx={{ ...grid, alignItems: 'start' }}>
        {TIMES.map(([work, name, label, per]) => {
          const field = {
            label,
            value: (rates[name] as number | null | undefined) ?? null,
            emptyText: 'none',
            disabled: !mayWrite,
            fault: fault(`rates.${name}`),
            onCommit: (value: number | null) => setRates({ [name]: value }),
          }
          return (
            <Box key={work}>
              {per ? <QuantityField of={per} {...field} /> : <NumberField {...field} />}
              <Measured
                seen={of(work)}
                per={per}
                present={field.value}
                onAccept={mayWrite ? (value) => setRates({ [name]: value }) : undefined}
              />
            </Box>
          )
        })}
        {PRICED.map(([work, name, label]) => (
          <Measured
            key={work}
            named={`Minutes of ${label}, among the prices`}
            seen={of(work)}
            per={null}
            present={(settings.prices?.[name] as number | null | undefined) ?? null}
            onAccept={
              mayWrite ? (value) => onChange({ ...settings, prices: { ...settings.prices, [name]: value } }) : undefined
            }
          />
        ))}
        <TextField
          label="Trade that welding is for"
          value={rates.by?.weld ?? ''}
          placeholder="anybody who builds"
          disabled={!mayWrite}
          onChange={(event) => {
            const trade = event.target.value.slice(0, NAME_MOST)
            const others = Object.entries(rates.by ?? {}).filter(([work]) => !HOT.includes(work))
            const hot = trade ? HOT.map((work) => [work, trade]) : []
            setRates({ by: Object.fromEntries([...others, ...hot]) as NonNullable<Rates['by']> })
          }}
        />
      </Box>
    </Section>
  )
}

const HOT = ['seat', 'tack', 'weld', 'close']
const ROUND = 10

interface MeasuredProps {
  named?: string
  seen: Seen | undefined
  per: Per
  present: number | null
  onAccept: ((value: number) => void) | undefined
}

/** What it has taken lately, and the way to plan with it. */
function Measured({ named, seen, per, present, onAccept }: MeasuredProps) {
  const units = useUnits()
  if (!seen) return null
  const show = (value: number) => (per ? units.amount(per, value) : String(Math.round(value * ROUND) / ROUND))
  const median = Math.round(seen.median * ROUND) / ROUND
  return (
    <Box data-seen={seen.work} sx={{ fontSize: 13, color: 'text.secondary', mt: 0.5 }}>
      {named && <Box sx={{ color: 'text.primary' }}>{named}</Box>}
      At the bench {show(seen.median)} (last {seen.count}: {show(seen.least)} to {show(seen.most)})
      {onAccept && median !== present && (
        <Button size="small" onClick={() => onAccept(median)}>
          Plan with {show(median)}
        </Button>
      )}
    </Box>
  )
}
