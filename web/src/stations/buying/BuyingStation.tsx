import { Alert, Box, Button, Typography } from '@mui/material'
import { type ReactNode, useRef, useState } from 'react'
import * as declared from '../../api/declared'
import { Failure } from '../../api/client'
import type { BuyingLine, BuyingRow, OwnItem } from '../../api/model'
import { sendFile } from '../../api/sendFile'
import { Choice, NumberField, Toggle } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { Papers } from '../../papers/Papers'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { pair } from '../Row'
import { addOwn, changeOwn, removeOwn, sayOf } from './edits'

/** What it comes to, lines of one's own, files out and in. */
export function BuyingStation({ findings }: { findings: ReactNode }) {
  const list = useWork((work) => work.evaluation?.buying?.list)
  const own = useWork((work) => work.design.buying.own)
  const readOnly = useWork((work) => work.readOnly)
  if (!list) return <Typography variant="body2">No tank to buy for yet: give it a shape at Shell first.</Typography>
  const open = list.rows.filter((row) => row.to_order > 0).length
  return (
    <>
      <Typography variant="body2" data-buying-total>
        {list.rows.length} lines, {open} still to order. To buy: {list.cost.toFixed(2)}
        {list.unpriced > 0 && `, ${list.unpriced} lines without a price`}.
      </Typography>
      {findings}
      <Typography variant="body2" color="textSecondary">
        Lines follow from the design. Prices come from the price book at Workshop until they are typed here; what comes
        is counted in at Build.
      </Typography>
      {own.map((item, place) => (
        <Own key={item.id} item={item} place={place} readOnly={readOnly} />
      ))}
      <Button
        variant="outlined"
        disabled={readOnly || own.length >= declared.Buying.most.own}
        onClick={() => addOwn('New item')}
      >
        Add an item
      </Button>
      <FileIn readOnly={readOnly} />
      <Papers station="buying" />
    </>
  )
}

function Own({ item, place, readOnly }: { item: OwnItem; place: number; readOnly: boolean }) {
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.5 }} data-own={item.id}>
      <NameField value={item.name} disabled={readOnly} onCommit={(name) => changeOwn(item.id, { name })} />
      <Box sx={pair}>
        <NumberField
          label="Quantity"
          value={item.quantity}
          path={`buying.own.${place}.quantity`}
          disabled={readOnly}
          onCommit={(quantity) => quantity !== null && changeOwn(item.id, { quantity })}
        />
        <Choice
          label="Unit"
          value={item.unit}
          options={declared.OwnItem.choices.unit}
          disabled={readOnly}
          onChange={(unit) => changeOwn(item.id, { unit })}
        />
      </Box>
      <Toggle
        label="Spare to carry"
        checked={item.spare}
        disabled={readOnly}
        onChange={(spare) => changeOwn(item.id, { spare })}
      />
      <Button disabled={readOnly} onClick={() => removeOwn(item.id)}>
        Remove {item.name}
      </Button>
    </Box>
  )
}

interface Read {
  lines: BuyingLine[]
  problems: { message: string }[]
}

/** What of a file's line differs from what is shown: that alone is kept as typed. */
function changed(line: BuyingLine, row: BuyingRow): (Partial<BuyingLine> & { name: string }) | null {
  const part: Partial<BuyingLine> = {}
  if (line.supplier !== row.supplier) part.supplier = line.supplier
  if (typeof line.price === 'number' && line.price !== row.price) part.price = line.price
  if (typeof line.on_shelf === 'number' && line.on_shelf !== row.on_shelf) part.on_shelf = line.on_shelf
  if (line.ordered !== row.ordered) part.ordered = line.ordered
  return Object.keys(part).length ? { name: row.key, ...part } : null
}

/** A list that somebody filled in comes back. */
function FileIn({ readOnly }: { readOnly: boolean }) {
  const input = useRef<HTMLInputElement>(null)
  const [said, setSaid] = useState<{ severity: 'error' | 'success' | 'warning'; text: string } | null>(null)
  const { inText } = useUnits()
  const read = async (file: globalThis.File) => {
    try {
      const found = await sendFile<Read>('/api/buying.csv', file)
      const rows = new Map((useWork.getState().evaluation?.buying?.list?.rows ?? []).map((row) => [row.key, row]))
      const strangers = found.lines.filter((line) => !rows.has(line.name)).map((line) => line.name)
      const news = found.lines.flatMap((line) => {
        const row = rows.get(line.name)
        return (row && changed(line, row)) ?? []
      })
      sayOf(news)
      const wrong = [
        ...found.problems.map((one) => one.message),
        ...(strangers.length ? [`not on the list: ${strangers.join(', ')}`] : []),
      ]
      setSaid({
        severity: wrong.length ? 'warning' : 'success',
        text: [`${news.length} ${news.length === 1 ? 'line' : 'lines'} changed`, ...wrong].join('; '),
      })
    } catch (error) {
      setSaid({ severity: 'error', text: error instanceof Failure ? error.message : String(error) })
    }
  }
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".csv"
        hidden
        aria-label="Buying list, CSV"
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file) void read(file)
        }}
      />
      <Button variant="outlined" disabled={readOnly} onClick={() => input.current?.click()}>
        Import suppliers, prices and orders from CSV
      </Button>
      {said && <Alert severity={said.severity}>{inText(said.text)}</Alert>}
    </>
  )
}
