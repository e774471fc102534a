import { Box, Button, TextField } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build } from '../api/model'
import { Choice } from '../fields/fields'
import { useUnits } from '../units/useUnits'
import { isOpen, record } from './build'

type Item = Build['state']['goods'][number]

const LARGE = { minHeight: 52 }
const MOST = 400
const ANY = 'any'
const BUY = 'buy:'

/** What is bought for the tank, for the lines, or for both, counted against the list as it comes. */
export function Goods({ build, mayWrite, of }: { build: Build; mayWrite: boolean; of?: 'tank' | 'lines' }) {
  const [open, setOpen] = useState<string | null>(null)
  const shown = build.state.goods.filter(({ item }) => !of || item.id.startsWith(BUY) === (of === 'lines'))
  return shown.map((item) => (
    <Line
      key={item.item.id}
      build={build}
      item={item}
      open={open === item.item.id}
      mayWrite={mayWrite}
      onToggle={() => setOpen(open === item.item.id ? null : item.item.id)}
    />
  ))
}

interface LineProps {
  build: Build
  item: Item
  open: boolean
  mayWrite: boolean
  onToggle: () => void
}

function Line({ build, item, open, mayWrite, onToggle }: LineProps) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const isHere = item.whole >= item.item.quantity
  return (
    <Box data-goods={item.item.id} data-here={isHere} sx={{ borderTop: `1px solid ${inks.line}` }}>
      <Button
        fullWidth
        aria-expanded={open}
        onClick={onToggle}
        sx={{ justifyContent: 'space-between', textAlign: 'left', color: 'text.primary', gap: 1 }}
      >
        <span>{say(item.item.title)}</span>
        <span style={{ fontWeight: 500, fontSize: 13, color: isHere ? inks.good : inks.stop, textAlign: 'right' }}>
          {item.whole} of {item.item.quantity} here
          {item.damaged > 0 && `, ${item.damaged} damaged`}
          {item.caps > 0 && `, ${item.caps} ${item.caps === 1 ? 'cap' : 'caps'}`}
        </span>
      </Button>
      {item.asks.map((ask) => (
        <Box key={ask} sx={{ fontSize: 14, color: inks.caution, pl: 1 }}>
          Maker asks: {ask}
        </Box>
      ))}
      {open && mayWrite && <Arrival build={build} item={item} />}
    </Box>
  )
}

function Arrival({ build, item }: { build: Build; item: Item }) {
  const missing = Math.max(1, item.item.quantity - item.whole)
  const [pieces, setPieces] = useState(missing)
  const [caps, setCaps] = useState(0)
  const [asking, setAsking] = useState(false)
  const arrived = (whole: boolean) =>
    void record(build, { kind: 'arrived', subject: item.item.id, value: pieces, caps, whole })
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1, pb: 1.5 }}>
      <Stepper label="Pieces" value={pieces} onChange={setPieces} />
      <Stepper label="Transport caps" value={caps} onChange={setCaps} />
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button variant="contained" sx={LARGE} disabled={pieces < 1} onClick={() => arrived(true)}>
          Here and whole
        </Button>
        <Button variant="outlined" sx={LARGE} disabled={pieces < 1} onClick={() => arrived(false)}>
          Damaged
        </Button>
        <Button sx={LARGE} onClick={() => setAsking(!asking)}>
          Maker’s sheet
        </Button>
      </Box>
      {asking && <MakerAsks build={build} item={item} onGiven={() => setAsking(false)} />}
    </Box>
  )
}

function Stepper({ label, value, onChange }: { label: string; value: number; onChange: (value: number) => void }) {
  return (
    <Box role="group" aria-label={label} sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
      <Button
        variant="outlined"
        aria-label={`${label}: one less`}
        sx={{ ...LARGE, minWidth: 52 }}
        disabled={value < 1}
        onClick={() => onChange(value - 1)}
      >
        −
      </Button>
      <Box sx={{ minWidth: 36, textAlign: 'center', fontWeight: 650 }}>{value}</Box>
      <Button
        variant="outlined"
        aria-label={`${label}: one more`}
        sx={{ ...LARGE, minWidth: 52 }}
        onClick={() => onChange(value + 1)}
      >
        +
      </Button>
      <Box>{label}</Box>
    </Box>
  )
}

/** A wait, a setting or a caution of a maker's sheet, and the operation before which it counts. */
function MakerAsks({ build, item, onGiven }: { build: Build; item: Item; onGiven: () => void }) {
  const { say } = useUnits()
  const [asks, setAsks] = useState('')
  const [wait, setWait] = useState('')
  const mine = build.state.operations.filter(
    (one) => isOpen(one) && one.operation.parts.some((part) => item.item.parts?.includes(part)),
  )
  const [before, setBefore] = useState(mine.at(-1)?.operation.id ?? ANY)
  const minutes = wait.trim() === '' ? null : Number(wait)
  const isRead = minutes === null || (Number.isFinite(minutes) && minutes >= 0)
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
      <TextField
        label="Setting, wait or caution"
        value={asks}
        multiline
        onChange={(event) => setAsks(event.target.value.slice(0, MOST))}
      />
      <TextField
        label="Wait, min"
        value={wait}
        error={!isRead}
        helperText={isRead ? undefined : 'zero or more'}
        onChange={(event) => setWait(event.target.value)}
        slotProps={{ htmlInput: { inputMode: 'numeric' } }}
      />
      <Choice
        label="Before"
        value={before}
        options={[
          { value: ANY, label: 'no step of its own' },
          ...build.state.operations
            .filter(isOpen)
            .map((one) => ({ value: one.operation.id, label: say(one.operation.title) })),
        ]}
        onChange={setBefore}
      />
      <Button
        variant="contained"
        sx={LARGE}
        disabled={!asks.trim() || !isRead}
        onClick={() => {
          const ask = { subject: item.item.id, asks: asks.trim(), wait_min: minutes }
          void record(build, { kind: 'maker', ...ask, before: before === ANY ? null : before })
          onGiven()
        }}
      >
        Record
      </Button>
    </Box>
  )
}
