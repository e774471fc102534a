import { Box, ButtonBase, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { FlatPart } from '../../api/model'
import { pathIn } from './chosen'

const PICTURE = { wide: 84, high: 40 }

interface Props {
  parts: FlatPart[]
  chosen: string | null
  onChoose: (part: string | null) => void
}

/** Every part small, to pick one from; the first button has all of them on the bench. */
export function PartRow({ parts, chosen, onChoose }: Props) {
  const { inks } = useTheme()
  if (parts.length < 2) return null
  return (
    <Box
      role="group"
      aria-label="Parts"
      sx={{ display: 'flex', overflowX: 'auto', flex: 'none', borderBottom: `1px solid ${inks.line}` }}
    >
      <Pick title="All parts" pressed={chosen === null} onPress={() => onChoose(null)} />
      {parts.map((part) => (
        <Pick
          key={part.name}
          title={part.quantity > 1 ? `${part.quantity} × ${part.title.toLowerCase()}` : part.title}
          part={part}
          pressed={part.name === chosen}
          onPress={() => onChoose(part.name)}
        />
      ))}
    </Box>
  )
}

function Pick({
  title,
  part,
  pressed,
  onPress,
}: {
  title: string
  part?: FlatPart
  pressed: boolean
  onPress: () => void
}) {
  const { inks } = useTheme()
  return (
    <ButtonBase
      aria-pressed={pressed}
      onClick={onPress}
      data-part={part?.name ?? ''}
      sx={{
        flex: 'none',
        minWidth: part ? PICTURE.wide + 16 : 72,
        maxWidth: 132,
        px: 1,
        py: 0.75,
        display: 'flex',
        flexDirection: 'column',
        justifyContent: part ? 'flex-end' : 'center',
        borderRight: `1px solid ${inks.line}`,
        background: pressed ? inks.handFill : 'transparent',
        '&:focus-visible': { outline: `2px solid ${inks.hand}`, outlineOffset: -2 },
      }}
    >
      {part && (
        <svg width={PICTURE.wide} height={PICTURE.high} aria-hidden="true">
          <path
            d={pathIn(part, PICTURE.wide, PICTURE.high)}
            fillRule="evenodd"
            fill={inks.metalFill}
            stroke={pressed ? inks.hand : inks.metal}
          />
        </svg>
      )}
      <Typography sx={{ fontSize: 12, lineHeight: 1.25, mt: 0.5 }}>{title}</Typography>
    </ButtonBase>
  )
}
