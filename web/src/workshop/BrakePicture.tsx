import { Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import * as declared from '../api/declared'
import { api, asked, type Schemas } from '../api/client'

type Brake = Schemas['Brake']
type Spots = readonly (readonly number[])[]

const SIZE = { wide: 280, high: 200 }
/** So much of the sheet is drawn at either side [mm]. */
const SHEET = 120

/** A brake from its end, as the core has it: what a part has to pass. */
export function BrakePicture({ brake }: { brake: Partial<Brake> }) {
  const { inks } = useTheme()
  const whole = { ...declared.Brake.defaults, ...brake }
  const shape = useQuery({
    queryKey: ['brake-shape', whole],
    queryFn: () => asked(api.POST('/api/workshop/brake-shape', { body: whole })),
    placeholderData: keepPreviousData,
    retry: false,
  }).data
  if (!shape) return null
  const pieces = [shape.tool, shape.under, shape.leaf].filter(({ length }) => length) as Spots[]
  const spots = [...pieces.flat(), [-SHEET, 0], [SHEET, 0]] as [number, number][]
  const [left, right] = [Math.min(...spots.map(([x]) => x)), Math.max(...spots.map(([x]) => x))]
  const [low, high] = [Math.min(...spots.map(([, y]) => y)), Math.max(...spots.map(([, y]) => y))]
  const scale = Math.min((SIZE.wide - 16) / (right - left), (SIZE.high - 16) / (high - low))
  const [wide, tall] = [(right - left) * scale + 16, (high - low) * scale + 16]
  const at = ([x = 0, y = 0]: readonly number[]) => `${8 + (x - left) * scale},${8 + (high - y) * scale}`
  const folder = shape.leaf.length > 0
  return (
    <figure style={{ margin: '16px 0', display: 'flex', alignItems: 'end', gap: 24 }}>
      <svg width={wide} height={tall} role="img" aria-label={`${whole.name} from its end`}>
        {pieces.map((piece, n) => (
          <polygon key={n} points={piece.map(at).join(' ')} fill={inks.blockFill} stroke={inks.block} />
        ))}
        <polyline
          points={[
            [left, 0],
            [right, 0],
          ]
            .map(at)
            .join(' ')}
          stroke={inks.hand}
          strokeWidth={2}
        />
      </svg>
      <Typography component="figcaption" variant="body2" color="textSecondary" sx={{ maxWidth: 420 }}>
        {folder
          ? 'From its end: the beam on the sheet, the bed under it, the leaf that lifts what lies before the nose.'
          : 'From its end: the punch over the sheet, the die under it.'}{' '}
        {whole.beam.length ? 'Typed as it was measured.' : 'The usual shape, as large as the smallest closed box says.'}
      </Typography>
    </figure>
  )
}
