import {
  BoreField,
  FlowField,
  LengthField,
  NumberField,
  QuantityField,
  ShareField,
  VolumeField,
} from '../../fields/fields'
import type { Figure } from './partFields'

interface Props {
  figure: Figure
  value: number | null
  path: string
  disabled: boolean
  onCommit: (value: number | null) => void
}

/** A figure in its own unit. */
export function FigureField({ figure, value, path, disabled, onCommit }: Props) {
  const { of, label, unit, emptyText } = figure
  const common = { label, value, path, disabled, emptyText, onCommit }
  switch (of) {
    case 'mm':
      return <LengthField {...common} />
    case 'bore':
      return <BoreField {...common} />
    case 'share':
      return <ShareField {...common} />
    case 'litres':
      return <VolumeField {...common} />
    case 'flow':
      return <FlowField {...common} />
    case 'number':
      return <NumberField {...common} unit={unit ?? ''} />
    default:
      return <QuantityField {...common} of={of} />
  }
}
