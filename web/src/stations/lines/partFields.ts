import * as declared from '../../api/declared'
import type { LineDoes } from '../../api/model'
import type { Ending } from '../../units/quantity'

/** A figure of what a part does: how it is called, and in which unit it is typed. */
export interface Figure {
  name: string
  label: string
  of: Ending | 'mm' | 'bore' | 'number' | 'share' | 'litres' | 'flow'
  unit?: string
  emptyText?: string
}

const pressure = (name: string, label: string, emptyText?: string): Figure => ({
  name,
  label,
  of: 'kpa',
  ...(emptyText ? { emptyText } : {}),
})
const number = (name: string, label: string, unit = '', emptyText?: string): Figure => ({
  name,
  label,
  of: 'number',
  unit,
  ...(emptyText ? { emptyText } : {}),
})
const bore: Figure = { name: 'bore_mm', label: 'Smallest bore inside', of: 'bore' }
const k = number('fittings_k', 'Loss factor K')
const minutes = number('minutes_to_replace', 'Time to replace', 'min', 'not known')
const drawn: Figure[] = [{ name: 'share', label: 'Share of the engine’s fuel', of: 'share' }]
const passage = [bore, k]
const user = [pressure('least_kpa', 'Least pressure'), pressure('most_kpa', 'Most pressure'), ...drawn]
const vent: Figure[] = [
  bore,
  pressure('opens_out_kpa', 'Opens outward at'),
  pressure('opens_in_kpa', 'Opens inward at'),
]

/** Figures by kind, in the order in which they are shown. */
export const FIGURES: Record<LineDoes['kind'], Figure[]> = {
  pump: [
    pressure('check_opens_kpa', 'Its check valve opens at', 'it has none'),
    pressure('dead_head_kpa', 'Dead-head pressure', 'by its curve'),
    number('current_a', 'Running current', 'A', 'not known'),
    number('loop_ohm', 'Wiring, there and back', 'Ω', 'as drawn at Wiring'),
    { name: 'lifts_mm', label: 'Greatest suction lift', of: 'mm', emptyText: 'not known' },
    number('noise_db', 'Noise at a metre', 'dB(A)', 'not known'),
    minutes,
  ],
  'engine-driven pump': [
    number('ratio', 'Shaft speed over the engine’s'),
    pressure('dead_head_kpa', 'Dead-head pressure', 'by its curve'),
  ],
  filter: [
    number('fineness_um', 'Fineness', 'µm', 'not known'),
    number('area_cm2', 'Element area', 'cm²', 'not known'),
    number('linear', 'Loss with the flow', 'kPa per L/h'),
    number('square', 'Loss with its square', 'kPa per (L/h)²'),
    number('loaded_times', 'Loss when due for a swap', '× clean'),
    number('swap_hours', 'Swapped after', 'h', 'not said'),
    minutes,
  ],
  'check valve': [pressure('opens_kpa', 'Opens at'), number('square', 'Loss with the flow’s square', 'kPa per (L/h)²')],
  'isolating valve': passage,
  sensor: passage,
  tee: passage,
  bulkhead: passage,
  rail: [
    number('injectors', 'Injectors'),
    { name: 'rated_l_per_h', label: 'One injector, held open', of: 'flow' },
    pressure('rated_kpa', 'Pressure across it, there'),
    { name: 'duty_limit', label: 'Longest opening', of: 'share' },
    ...drawn,
    { name: 'bore_mm', label: 'Bore of the rail', of: 'bore' },
  ],
  carburettor: user,
  'injection pump': [...user, { name: 'return_bore_mm', label: 'Bore of its way back', of: 'bore' }],
  'delivery nozzle': user,
  burner: user,
  regulator: [
    pressure('set_kpa', 'Set pressure, over its reference'),
    number('wide_open', 'Loss wide open', 'kPa per (L/h)²'),
    number('fineness_um', 'Filter in its housing', 'µm', 'none'),
    number('filter_linear', 'That filter’s loss', 'kPa per L/h'),
  ],
  'jet pump': [
    number('ratio', 'Moved over driving flow'),
    pressure('least_kpa', 'Least driving pressure'),
    number('nozzle_square', 'Loss of its nozzle', 'kPa per (L/h)²'),
  ],
  'surge tank': [{ name: 'volume_l', label: 'Volume', of: 'litres' }],
  'other tank': [{ name: 'level_mm', label: 'Fuel over its outlet, nearly empty', of: 'mm' }],
  canister: vent,
  'vapour valve': vent,
  'roll-over valve': vent,
  'vent end': vent,
  cap: [],
}

/** What is either so or not. */
export const TOGGLES: Partial<Record<LineDoes['kind'], { name: string; label: string }[]>> = {
  pump: [{ name: 'spare', label: 'Spare, counts for nothing' }],
  'engine-driven pump': [
    { name: 'needs_flooded', label: 'Inlet has to be flooded by gravity' },
    { name: 'can_disengage', label: 'Can be disengaged' },
  ],
  regulator: [{ name: 'is_referenced', label: 'Follows the manifold’s pressure' }],
  'surge tank': [
    { name: 'inlet_is_tangential', label: 'Inlets along its wall, near the top' },
    { name: 'outlet_is_lowest', label: 'Outlet at its lowest point' },
    { name: 'overflow_is_highest', label: 'Overflow at its highest point' },
    { name: 'in_box', label: 'In a metal box of its own' },
  ],
}

/** What is written in words. */
export const WORDS: Partial<Record<LineDoes['kind'], { name: string; label: string; most: number }[]>> = {
  pump: [
    { name: 'fuse', label: 'Fuse', most: declared.PumpDoes.most.fuse },
    { name: 'relay', label: 'Relay', most: declared.PumpDoes.most.relay },
    { name: 'switch', label: 'Switch or cut-off', most: declared.PumpDoes.most.switch },
    { name: 'tools', label: 'Tools to replace it', most: declared.PumpDoes.most.tools },
    { name: 'brought_in', label: 'How the spare is brought in', most: declared.PumpDoes.most.brought_in },
  ],
  filter: [
    { name: 'tools', label: 'Tools to replace it', most: declared.FilterDoes.most.tools },
    { name: 'caught', label: 'Caught at the last swap', most: declared.FilterDoes.most.caught },
  ],
}
