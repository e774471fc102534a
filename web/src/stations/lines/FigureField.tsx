import { Box } from '@mui/material'
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

/** Beyond so many signs a name, its unit or what stands in an empty field is cut in half a panel. */
const HALF = 17

/** A figure in its own unit; over both columns where half a panel would cut its name. */
export function FigureField(props: Props) {
  const { label, unit, emptyText } = props.figure
  const wide = Math.max(label.length, (emptyText ?? '12345').length + (unit ?? 'mm').length + 4) > HALF
  return (
    <Box sx={{ gridColumn: wide ? '1 / -1' : undefined }}>
      <Field {...props} />
    </Box>
  )
}

function Field({ figure, value, path, disabled, onCommit }: Props) {
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
