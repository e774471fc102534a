import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { WiredDiagram, WiringShown } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { select, useWork } from '../../work/store'
import { Block } from '../Board'
import { DeviceSign } from './DeviceMark'

const COLUMN = 190
const ROW = 62
const WIDTH = 118
const HEIGHT = 36
const ENTRY = 14
type Line = WiredDiagram['lines'][number]

/** The one-line diagram: from the battery to the right; what leads back is named, not drawn. */
export function DiagramBlock({ wiring }: { wiring: WiringShown }) {
  const { inks } = useTheme()
  const units = useUnits()
  const at = useWork((work) => work.at)
  const wires = useWork((work) => work.design.wiring.wires)
  const shown = wiring.diagram
  if (!shown?.boxes.length) return null
  const sizes = new Map(wiring.wired?.wires.map((one) => [one.id, one.area_mm2]))
  const ratings = new Map(wiring.wired?.fuses.map((one) => [one.id, one.rating_a]))
  const label = (line: Line) =>
    line.wires
      .map((id) => `${wires.find((wire) => wire.id === id)?.name ?? id} ${units.wire(sizes.get(id) ?? 0)}`)
      .join(', ')
  const [width, height] = [shown.columns * COLUMN, shown.rows * ROW + 10]
  return (
    <Block
      title="One-line diagram"
      about="From the battery to the right. Wires that lead back are named under what they come from."
    >
      <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="One-line diagram">
        <svg width={width} height={height} role="img" aria-label="One-line diagram of the wiring" fontSize={11}>
          {shown.lines.map((line) => (
            <g key={line.wires.join()} data-diagram-line={line.wires.join()}>
              <path
                d={pathOf(line)}
                fill="none"
                stroke={at?.kind === 'wire' && line.wires.includes(at.id) ? inks.hand : inks.quiet}
                strokeWidth={at?.kind === 'wire' && line.wires.includes(at.id) ? 3 : 1.4}
              />
              <text
                x={labelSpot(line)[0]}
                y={labelSpot(line)[1]}
                fill={inks.ink}
                textAnchor="end"
                stroke={inks.sheet}
                strokeWidth={3}
                paintOrder="stroke"
              >
                {label(line)}
              </text>
            </g>
          ))}
          {shown.boxes.map((box) => {
            const [x, y] = [box.column * COLUMN, box.row * ROW + 8]
            const kind = box.of === 'device' ? 'device' : box.of === 'pump' ? 'line part' : 'sender'
            const held = at?.kind === kind && at.id === box.id
            const rating = ratings.get(box.id)
            return (
              <g
                key={`${box.of}-${box.id}`}
                data-diagram-box={`${box.of}.${box.id}`}
                style={{ cursor: 'pointer' }}
                onPointerDown={() => select({ kind, id: box.id })}
              >
                <rect
                  x={x}
                  y={y}
                  width={WIDTH}
                  height={HEIGHT}
                  rx={3}
                  fill={held ? inks.handFill : inks.sheet}
                  stroke={held ? inks.hand : inks.ink}
                />
                <DeviceSign kind={box.kind} x={x + 13} y={y + HEIGHT / 2} colour={held ? inks.hand : inks.ink} />
                <Words
                  x={x + 26}
                  y={y}
                  text={rating ? `${box.name}, ${units.quantity('a', rating, 1)}` : box.name}
                  colour={inks.ink}
                />
                {box.earths.slice(0, 2).map((said, n) => (
                  <text key={said} x={x} y={y + HEIGHT + 10 + 10 * n} fill={inks.quiet} fontSize={10}>
                    {n === 1 && box.earths.length > 2 ? `${said}, …` : said}
                  </text>
                ))}
              </g>
            )
          })}
        </svg>
      </Box>
    </Block>
  )
}

const SIGNS = 16

/** A name on one or two lines within its box. */
function Words({ x, y, text, colour }: { x: number; y: number; text: string; colour: string }) {
  const lines = inLines(text)
  return lines.map((line, n) => (
    <text key={line} x={x} y={y + HEIGHT / 2 + 4 + (n - (lines.length - 1) / 2) * 12} fill={colour}>
      {line}
    </text>
  ))
}

function inLines(text: string): string[] {
  const lines = ['']
  for (const word of text.split(' ')) {
    const last = lines.at(-1) ?? ''
    if (last && last.length + word.length + 1 > SIGNS && lines.length < 2) lines.push(word)
    else lines[lines.length - 1] = last ? `${last} ${word}` : word
  }
  return lines.map((line) => (line.length > SIGNS + 2 ? `${line.slice(0, SIGNS)}…` : line))
}

const middle = (row: number) => row * ROW + 8 + HEIGHT / 2

/** Lines that end at the same box enter it one under the other. */
const entryOf = ({ spots, entry, entries }: Line) =>
  middle(spots.at(-1)?.[1] ?? 0) +
  (entry - (entries - 1) / 2) * Math.min(ENTRY, (HEIGHT - 6) / Math.max(1, entries - 1))

/** Out of one box, in a lane down the gap between the columns, into the next. */
function pathOf(line: Line): string {
  let path = ''
  line.spots.forEach(([column, row], n) => {
    const next = line.spots[n + 1]
    const x = column * COLUMN + WIDTH
    if (n === 0) path += `M${x} ${middle(row)}`
    if (!next) return
    const last = n + 2 === line.spots.length
    const lane = x + 7 + ((column * 7 + row * 5) % 3) * 4
    path += `H${lane}V${last ? entryOf(line) : middle(next[1])}H${next[0] * COLUMN + (last ? 0 : WIDTH)}`
  })
  return path
}

/** Before the box that it ends at. */
function labelSpot(line: Line): [number, number] {
  const [column] = line.spots.at(-1) ?? [0, 0]
  return [column * COLUMN - 3, entryOf(line) - 2]
}
