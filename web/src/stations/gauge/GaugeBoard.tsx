import type { Schemas } from '../../api/client'
import { Box, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { SenderReading } from '../../api/model'
import { Plot } from '../../plots/Plot'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Block, Board, Sheet } from '../Board'
import { Dial } from './Dial'
import { MethodDrawing } from './MethodDrawing'

type Joined = Schemas['Joined']

/** What each needle says against what is in the tank. */
export function GaugeBoard() {
  const truth = useWork((work) => work.evaluation?.gauge?.truth)
  const shown = useWork((work) => work.evaluation?.shell?.fill?.cells)
  if (!truth?.readings.length) return null
  return (
    <Board label="Gauge against the tank">
      {truth.readings.map((reading) => (
        <Truth
          key={reading.id}
          reading={reading}
          held={shown?.find((cell) => cell.cell === reading.cell)?.volume_l ?? null}
        />
      ))}
      {truth.joined.map((joined) => (
        <Together key={joined.cell} joined={joined} />
      ))}
    </Board>
  )
}

const EIGHTHS = ['E', '1/8', '1/4', '3/8', '1/2', '5/8', '3/4', '7/8', 'F']

function Truth({ reading, held }: { reading: SenderReading; held: number | null }) {
  const units = useUnits()
  const { inks } = useTheme()
  return (
    <Block title={`${reading.name}, in ${reading.cell}`}>
      <Typography variant="body2" sx={{ mb: 1 }}>
        At E <strong>{units.volumeUnitText(reading.left_at_empty_l)}</strong> are left; over F another{' '}
        {units.volumeUnitText(reading.above_full_l)} go in. The needle is out by{' '}
        {units.volumeUnitText(Math.abs(reading.worst_l))} at its worst, where it says{' '}
        {reading.worst_l > 0 ? 'less than there is' : 'more than there is'}.
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fit, minmax(min(280px, 100%), 1fr))',
          maxWidth: 900,
          gap: 3,
          alignItems: 'start',
        }}
      >
        <Dial reading={reading} held={held} />
        <Plot
          label={`Error of the needle of ${reading.name}`}
          fromZero={false}
          lines={[
            { points: reading.eighths.map((mark) => [mark.needle, mark.error_l] as const), colour: inks.hand },
            {
              points: [
                [0, 0],
                [1, 0],
              ],
              colour: inks.quiet,
              width: 1,
            },
          ]}
          dots={reading.eighths.map((mark) => ({ at: [mark.needle, mark.error_l] as const, colour: inks.hand }))}
          xText="needle"
          yText={`there is more (+) or less (−) than it says, ${units.volumeUnit}`}
          showX={(value) => (value === 0 ? 'E' : value === 1 ? 'F' : '½')}
          showY={(value) => units.volume(value, 1)}
          perY={units.litresPer}
          height={220}
        />
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fit, minmax(min(340px, 100%), 1fr))',
          maxWidth: 900,
          gap: 3,
          mt: 1,
        }}
      >
        <Sheet
          label={`Eighths of ${reading.name}`}
          columns={[
            { name: 'Needle' },
            { name: 'Ω', right: true },
            { name: `float, ${units.lengthUnit}`, right: true },
            { name: `there is, ${units.volumeUnit}`, right: true },
            { name: 'off by', right: true },
          ]}
          rows={reading.eighths.map((mark, place) => ({
            key: `${mark.needle}`,
            cells: [
              EIGHTHS[place],
              units.number(mark.ohms, 1),
              units.length(mark.float_mm),
              units.volume(mark.litres),
              `${mark.error_l > 0.005 ? '+' : ''}${units.volume(mark.error_l)}`,
            ],
          }))}
        />
        <Sheet
          label={`True tenths of rated, ${reading.name}`}
          columns={[
            { name: 'Of rated' },
            { name: units.volumeUnit, right: true },
            { name: 'needle, eighths', right: true },
          ]}
          rows={reading.tenths.map((tenth) => ({
            key: `${tenth.share}`,
            cells: [
              `${Math.round(tenth.share * 100)} %`,
              units.volume(tenth.litres),
              units.number(tenth.needle * 8, 2),
            ],
          }))}
        />
      </Box>
      <Methods reading={reading} />
    </Block>
  )
}

function Methods({ reading }: { reading: SenderReading }) {
  const units = useUnits()
  const { inks } = useTheme()
  if (!reading.methods.length) return null
  return (
    <Box sx={{ mt: 2 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 3, mb: 1 }}>
        {reading.methods.map((way) => (
          <MethodDrawing key={way.name} way={way} depth={reading.depth_mm} float={reading.float_mm} />
        ))}
      </Box>
      <Sheet
        label={`Ways to fit ${reading.name}`}
        columns={[
          { name: 'Fitted' },
          { name: `arm, ${units.lengthUnit}`, right: true },
          { name: 'pivot', right: true },
          { name: 'float at E', right: true },
          { name: 'float at F', right: true },
          { name: `left at E, ${units.volumeUnit}`, right: true },
          { name: 'over F', right: true },
          { name: 'worst', right: true },
          { name: '' },
        ]}
        rows={reading.methods.map((way) => ({
          key: way.name,
          strong: way.favoured,
          cells: [
            way.name,
            units.length(way.arm_mm),
            units.length(way.pivot_mm),
            units.length(way.empty_mm),
            units.length(way.full_mm),
            units.volume(way.left_at_empty_l),
            units.volume(way.above_full_l),
            units.volume(way.worst_l),
            way.favoured ? (
              <strong key="f" style={{ color: inks.hand }}>
                the figures favour it
              </strong>
            ) : way.fits ? (
              ''
            ) : (
              'meets floor or roof'
            ),
          ],
        }))}
      />
    </Box>
  )
}

function Together({ joined }: { joined: Joined }) {
  const units = useUnits()
  return (
    <Block
      title={`Senders of ${joined.cell} ${joined.how}`}
      about={`Against the rated ${units.volumeUnitText(joined.rated_l)} on the level one needle is out by ${units.volumeUnitText(Math.abs(joined.worst_l))} at its worst.`}
    >
      <Sheet
        label="Joined senders"
        width={420}
        columns={[
          { name: 'Of rated' },
          { name: units.volumeUnit, right: true },
          { name: 'needle, eighths', right: true },
        ]}
        rows={joined.tenths.map((tenth) => ({
          key: `${tenth.share}`,
          cells: [`${Math.round(tenth.share * 100)} %`, units.volume(tenth.litres), units.number(tenth.needle * 8, 2)],
        }))}
      />
    </Block>
  )
}
