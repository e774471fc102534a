import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useQuery } from '@tanstack/react-query'
import { memo } from 'react'
import type { BuyingRow } from '../../api/model'
import { NumberField, QuantityField } from '../../fields/fields'
import { WordsField } from '../../fields/WordsField'
import * as declared from '../../api/declared'
import { buildQuery } from '../../floor/query'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Block, Board, Sheet, Two } from '../Board'
import { sayOf } from './edits'
import { TITLES } from './names'
import { endingOf, priceOf, useAmount } from './useAmount'

/** The list, kind by kind: what is on the shelf, ordered, here; then every connection with its mate. */
export function BuyingBoard({ designId }: { designId: number }) {
  const rows = useWork((work) => work.evaluation?.buying?.list?.rows)
  const readOnly = useWork((work) => work.readOnly)
  const goods = useQuery(buildQuery(designId)).data?.state.goods ?? []
  if (!rows) return <Board label="Buying list">{null}</Board>
  const here = new Map(goods.map((one) => [one.item.id, `${one.whole} of ${one.item.quantity}`]))
  const kinds = [...new Set(rows.map((row) => row.kind))]
  return (
    <Board label="Buying list">
      {!rows.length && (
        <Typography variant="body2">
          Nothing to buy yet: draw the lines at Lines, the wiring at Wiring, ports at Ports.
        </Typography>
      )}
      {kinds.map((kind) => (
        <Kind key={kind} kind={kind} rows={rows.filter((row) => row.kind === kind)} here={here} readOnly={readOnly} />
      ))}
      <Mates />
    </Board>
  )
}

const COLUMNS: readonly [string, number | undefined][] = [
  ['Item', undefined],
  ['Quantity', 76],
  ['Supplier', 128],
  ['Price', 80],
  ['On the shelf', 84],
  ['Ordered', 84],
  ['To order', 72],
  ['Here', 60],
]

/** Fields in a table: the column's heading is what is seen of their labels. */
const inTable = {
  tableLayout: 'fixed',
  minWidth: 730,
  '& td, & th': { px: 0.5 },
  '& .MuiInputLabel-root': {
    position: 'absolute',
    width: 1,
    height: 1,
    overflow: 'hidden',
    clipPath: 'inset(50%)',
    whiteSpace: 'nowrap',
  },
  '& fieldset': { top: 0 },
  '& fieldset legend': { display: 'none' },
  '& input': { px: 1, py: 1, fontSize: 15 },
  '& .MuiOutlinedInput-root': { px: 0 },
} as const

function Kind({
  kind,
  rows,
  here,
  readOnly,
}: {
  kind: BuyingRow['kind']
  rows: BuyingRow[]
  here: Map<string, string>
  readOnly: boolean
}) {
  return (
    <Block title={TITLES[kind]}>
      <Box sx={{ overflowX: 'auto' }}>
        <Table size="small" aria-label={TITLES[kind]} sx={inTable}>
          <TableHead>
            <TableRow>
              {COLUMNS.map(([name, width]) => (
                <TableCell key={name} sx={{ width, lineHeight: 1.25 }}>
                  {name}
                </TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {rows.map((row) => (
              <Line
                key={`${row.key}-${row.unit}`}
                row={row}
                here={here.get(`buy:${row.key}`.slice(0, 120))}
                readOnly={readOnly}
              />
            ))}
          </TableBody>
        </Table>
      </Box>
    </Block>
  )
}

const Line = memo(function Line({
  row,
  here,
  readOnly,
}: {
  row: BuyingRow
  here: string | undefined
  readOnly: boolean
}) {
  const { inks } = useTheme()
  const units = useUnits()
  const amount = useAmount()
  const ending = endingOf(row.unit)
  const per = priceOf(row.unit)
  // What is typed stands as it was typed, with what is wrong with it, while the list is from before.
  const place = useWork((work) => work.design.buying.lines.findIndex((line) => line.name === row.key))
  const said = useWork((work) => work.design.buying.lines[place])
  const pathOf = (name: 'price' | 'on_shelf' | 'ordered') => (said ? `buying.lines.${place}.${name}` : undefined)
  const price = {
    label: `Price, ${units.say(row.name)}`,
    compact: true,
    path: pathOf('price'),
    value: said?.price ?? row.price ?? null,
    emptyText: '–',
    disabled: readOnly,
    onCommit: (typed: number | null) => sayOf([{ name: row.key, price: typed }]),
  }
  const count = (label: string, value: number, name: 'on_shelf' | 'ordered') => {
    const shared = {
      label: `${label}, ${units.say(row.name)}`,
      compact: true,
      path: pathOf(name),
      value: said?.[name] || value || null,
      emptyText: '0',
      disabled: readOnly,
      onCommit: (typed: number | null) => sayOf([{ name: row.key, [name]: typed ?? 0 }]),
    }
    return ending ? <QuantityField {...shared} of={ending} /> : <NumberField {...shared} />
  }
  return (
    <TableRow data-buying={row.key}>
      <TableCell sx={{ overflowWrap: 'anywhere' }}>
        <Two main={units.say(row.name)} more={row.needed_for.slice(0, MOST_NAMED).join('; ')} />
      </TableCell>
      <TableCell sx={{ whiteSpace: 'nowrap' }}>{amount(row.quantity, row.unit)}</TableCell>
      <TableCell>
        <WordsField
          label={`Supplier, ${units.say(row.name)}`}
          mayBeEmpty
          value={row.supplier}
          most={declared.BuyingLine.most.supplier}
          disabled={readOnly}
          onCommit={(supplier) => sayOf([{ name: row.key, supplier }])}
        />
      </TableCell>
      <TableCell>{per ? <QuantityField {...price} of={per} /> : <NumberField {...price} />}</TableCell>
      <TableCell>{count('On the shelf', row.on_shelf, 'on_shelf')}</TableCell>
      <TableCell>{count('Ordered', row.ordered, 'ordered')}</TableCell>
      <TableCell sx={{ whiteSpace: 'nowrap', color: row.to_order > 0 ? inks.stop : inks.good, fontWeight: 650 }}>
        {row.to_order > 0 ? amount(row.to_order, row.unit) : 'none'}
      </TableCell>
      <TableCell sx={{ whiteSpace: 'nowrap' }}>{here ?? '–'}</TableCell>
    </TableRow>
  )
})

const MOST_NAMED = 3

function Mates() {
  const units = useUnits()
  const mates = useWork((work) => work.evaluation?.buying?.mates)
  if (!mates?.length) return null
  const wrong = mates.filter((one) => one.why).length
  return (
    <Block
      title={`Connections: ${mates.length}, ${wrong ? `${wrong} without a mate` : 'each with its mate'}`}
      about="Asked of every connection of the lines, and of every port of the tank that a line is led from: is what goes on it on the list?"
    >
      <Sheet
        label="Connections"
        width={900}
        columns={[{ name: 'Part' }, { name: 'Connection' }, { name: 'On the list for it', wide: true }]}
        rows={mates.map((one) => ({
          key: `${one.part}.${one.port}`,
          strong: Boolean(one.why),
          cells: [one.part_name, one.part === 'tank' ? 'tank' : one.port, one.why || one.has.map(units.say).join(', ')],
        }))}
      />
    </Block>
  )
}
