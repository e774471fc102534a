import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { Build, Entry, LogRow } from '../api/model'
import { useUnits } from '../units/useUnits'
import { record } from './build'
import { moment } from './time'

type Shows = Pick<
  ReturnType<typeof useUnits>,
  'say' | 'cut' | 'lengthUnit' | 'quantity' | 'lengthUnitText' | 'volumeUnitText'
>

/** What was written, newest first; what doesn't hold is struck through, and can't be lost. */
export function LogRows({ rows, build, mayWrite }: { rows: LogRow[]; build?: Build; mayWrite: boolean }) {
  const { inks } = useTheme()
  const units = useUnits()
  const titles = new Map(build?.state.operations.map((one) => [one.operation.id, units.say(one.operation.title)]))
  for (const gate of build?.state.gates ?? []) titles.set(gate.gate.id, units.say(gate.gate.title))
  if (!rows.length) return <Box sx={{ color: 'text.secondary' }}>Nothing recorded yet.</Box>
  return rows.map((row) => (
    <Box
      key={row.n}
      data-row={row.n}
      sx={{ borderTop: `1px solid ${inks.line}`, py: 0.75, display: 'flex', gap: 1, alignItems: 'baseline' }}
    >
      <Box sx={{ flex: 1, minWidth: 0, overflowWrap: 'anywhere' }}>
        <Box sx={{ fontSize: 13, color: 'text.secondary' }}>
          {moment(row.happened)}, {row.author}
          {isLate(row) && ', sent later'}
        </Box>
        <Box
          sx={{
            textDecoration: row.void ? 'line-through' : 'none',
            color: row.entry.kind === 'override' ? inks.stop : 'text.primary',
          }}
        >
          {said(row.entry, titles, units)}
          {row.entry.note && `: ${row.entry.note}`}
          {(row.entry.photos?.length ?? 0) > 0 &&
            `, ${row.entry.photos?.length === 1 ? 'a photo' : `${row.entry.photos?.length} photos`}`}
        </Box>
      </Box>
      {build && mayWrite && !row.void && (
        <Button
          size="small"
          aria-label={`Take back entry ${row.n}`}
          onClick={() => void record(build, { kind: 'correction', of: row.entry.id })}
        >
          Take back
        </Button>
      )}
    </Box>
  ))
}

const LATE_MS = 60_000
const isLate = (row: LogRow) => Date.parse(row.received) - Date.parse(row.happened) > LATE_MS

type OfProof = Extract<
  Entry,
  { kind: 'proof begun' | 'gauge read' | 'proof ended' | 'leak found' | 'leak repaired' | 'seam walked' }
>

/** An entry of a leak test in words. */
function saidOfProof(entry: OfProof, units: Shows): string {
  switch (entry.kind) {
    case 'proof begun':
      return `Leak test of the ${entry.subject} begun: ${entry.method}, ${units.quantity('finekpa', entry.pressure_kpa)}`
    case 'gauge read':
      return `Gauge read: ${units.quantity('finekpa', entry.pressure_kpa)} at ${units.quantity('c', entry.temperature_c, 1)}`
    case 'proof ended':
      return `Leak test ended${entry.found ? `: ${entry.found.verdict}` : ''}${entry.stopped ? `, broken off: ${entry.stopped}` : ''}`
    case 'leak found':
      return `Leak on ${entry.subject}, ${units.lengthUnitText(entry.at_mm)} along: ${entry.size}`
    case 'leak repaired':
      return `Leak mended: ${entry.how}`
    case 'seam walked':
      return `Walked: ${entry.subject}`
  }
}

type OfHandover = Extract<Entry, { kind: 'poured' | 'line read' | 'joint' | 'joint mark' | 'left open' | 'closed' }>

/** An entry between first fuel and hand-over in words. */
function saidOfHandover(entry: OfHandover, of: (id: string) => string, units: Shows): string {
  switch (entry.kind) {
    case 'poured':
      return `${of(entry.subject)}: ${units.volumeUnitText(entry.litres)} in it`
    case 'line read':
      return `Line held: ${units.quantity('kpa', entry.kpa)} after ${entry.minute.toFixed(1)} min${entry.simulated ? ', simulated' : ''}`
    case 'joint':
      return `Joint ${entry.subject}: ${entry.found}`
    case 'joint mark':
      return `Joint ${entry.subject}: ${entry.mark}${entry.good ? '' : ', not good'}`
    case 'left open':
      return `Left open (${entry.why}): ${entry.what}`
    case 'closed':
      return `${entry.stays ? 'Stays as it is' : 'Closed'}: ${entry.reason}`
  }
}

/** An entry in words. */
export function said(entry: Entry, titles: ReadonlyMap<string, string>, units: Shows): string {
  const of = (id: string | null | undefined) => (id ? (titles.get(id) ?? id) : 'the job')
  switch (entry.kind) {
    case 'started':
    case 'paused':
    case 'done':
      return `${entry.kind === 'done' ? 'Done' : entry.kind === 'started' ? 'Started' : 'Paused'}: ${of(entry.subject)}`
    case 'skipped':
      return `Skipped: ${of(entry.subject)}, because ${entry.reason}`
    case 'accepted':
      return `Accepted as made: ${of(entry.subject)}, because ${entry.reason}`
    case 'added':
      return `Step added: ${entry.title}`
    case 'moved':
      return `Moved: ${of(entry.subject)}, after ${entry.after ? of(entry.after) : 'nothing'}`
    case 'checked':
      return `${entry.passed ? 'Looked at, so' : 'Looked at, not so'}: ${of(entry.subject)}`
    case 'count':
      return `Counted ${entry.way}: ${entry.value} ${entry.subject}`
    case 'reading':
      return `Reading of ${entry.subject}: ${entry.value}`
    case 'measured':
      return `Measured ${units.cut(entry.value_mm)} ${units.lengthUnit === 'mm' ? 'mm' : ''}: ${entry.subject}${entry.by_way ? `, by ${entry.by_way}` : ''}`
    case 'flushed':
      return `Flushed ${entry.subject}: ${entry.caught} came out`
    case 'override':
      return `Passed unmet: ${of(entry.subject)}, by ${entry.name}, because ${entry.reason}`
    case 'correction':
      return `Taken back: entry ${entry.of}`
    case 'note':
      return `Note on ${of(entry.subject)}`
    case 'pinned':
      return 'Photo pinned on the tank'
    case 'drawn':
      return 'Drawn on a photo'
    case 'arrived':
      return `Arrived: ${entry.value} ${entry.subject}${entry.caps ? `, ${entry.caps} caps` : ''}${entry.whole ? '' : ', damaged'}`
    case 'maker':
      return `Maker asks: ${entry.asks} (${entry.subject})`
    case 'sent':
      return `Sent out to ${entry.to}: ${entry.work}`
    case 'back':
      return `Back${entry.whole ? '' : ', not as it should be'}`
    case 'learnt':
      return `Learnt: ${entry.what}${entry.next ? `. Next: ${entry.next}` : ''}`
    case 'agreed':
      return `Agreed, ${entry.about}: ${entry.what}, by ${entry.consent}`
    case 'proof begun':
    case 'gauge read':
    case 'proof ended':
    case 'leak found':
    case 'leak repaired':
    case 'seam walked':
      return saidOfProof(entry, units)
    default:
      return saidOfHandover(entry, of, units)
  }
}
