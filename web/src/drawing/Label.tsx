import { useTheme } from '@mui/material'
import type { SVGProps } from 'react'

type LabelProps = SVGProps<SVGTextElement> & { rank: number; of: readonly number[]; colour: string }

/** Words beside what they name, legible on any line: where two would overlap the lower rank stays. */
export function Label({ rank, of, colour, ...rest }: LabelProps) {
  const { inks } = useTheme()
  return (
    <text
      data-label={rank}
      data-at={of.join(' ')}
      fontSize={11}
      fontWeight={600}
      fill={colour}
      stroke={inks.sheet}
      strokeWidth={3}
      paintOrder="stroke"
      {...rest}
    />
  )
}
