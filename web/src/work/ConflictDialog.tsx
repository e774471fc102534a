import {
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogContentText,
  DialogTitle,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
} from '@mui/material'
import type { Design } from '../api/model'
import { withoutUnit } from '../units/quantity'
import { useUnits } from '../units/useUnits'
import { keepMine, takeTheirs, useSaving } from './saving'
import { useWork } from './store'

interface Difference {
  path: string
  /** The same by the names of what it leads through. */
  steps: string[]
  mine: unknown
  theirs: unknown
}

/** What a step of a path is called: an item of a list by its own name, else by its number. */
function stepTo(key: string, item: unknown, isList: boolean): string {
  if (!isList) return withoutUnit(key)
  const name = typeof item === 'object' && item !== null && 'name' in item ? String(item.name) : ''
  return name || String(Number(key) + 1)
}

/** Every field that the two designs don't share, by path. */
export function differences(mine: unknown, theirs: unknown, path = '', steps: string[] = []): Difference[] {
  if (JSON.stringify(mine) === JSON.stringify(theirs)) return []
  const isObject = (side: unknown) => typeof side === 'object' && side !== null
  if (!isObject(mine) && !isObject(theirs)) return [{ path, steps, mine, theirs }]
  const isList = Array.isArray(mine) || Array.isArray(theirs)
  const a = (isObject(mine) ? mine : {}) as Record<string, unknown>
  const b = (isObject(theirs) ? theirs : {}) as Record<string, unknown>
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((key) =>
    differences(a[key], b[key], path ? `${path}.${key}` : key, [...steps, stepTo(key, a[key] ?? b[key], isList)]),
  )
}

/** Two people saved over each other: show both sides, let the person choose, lose neither. */
export function ConflictDialog() {
  const other = useSaving((saving) => saving.other)
  const state = useSaving((saving) => saving.state)
  const why = useSaving((saving) => saving.why)
  const design = useWork((work) => work.design)
  if (state !== 'conflict' || !other) return null
  return (
    <Dialog open maxWidth="md" fullWidth aria-labelledby="conflict-title">
      <DialogTitle id="conflict-title">Two versions of this design</DialogTitle>
      <DialogContent>
        <DialogContentText>
          {why} You were working on an older one. Whichever you go on with, the other stays in the revisions.
        </DialogContentText>
        <DifferenceTable
          mine={design}
          theirs={other.design}
          titles={['Yours', `${other.author}’s, r${other.number}`]}
        />
      </DialogContent>
      <DialogActions>
        <Button onClick={() => void takeTheirs()}>Go on with {other.author}’s</Button>
        <Button variant="contained" onClick={() => void keepMine()}>
          Go on with mine
        </Button>
      </DialogActions>
    </Dialog>
  )
}

export function DifferenceTable({ mine, theirs, titles }: { mine: Design; theirs: Design; titles: [string, string] }) {
  const units = useUnits()
  const show = (path: string, value: unknown): string => {
    if (value === null || value === undefined || value === '') return '–'
    if (typeof value === 'number') return units.byName(path, value)
    if (typeof value === 'boolean') return value ? 'yes' : 'no'
    if (typeof value === 'object') return 'name' in value ? String(value.name) : 'set'
    return String(value)
  }
  const rows = differences(mine, theirs)
  return (
    <Table size="small" sx={{ mt: 2 }}>
      <TableHead>
        <TableRow>
          <TableCell>What</TableCell>
          <TableCell>{titles[0]}</TableCell>
          <TableCell>{titles[1]}</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {rows.map((row) => (
          <TableRow key={row.path}>
            <TableCell>{row.steps.join(' › ')}</TableCell>
            <TableCell>{show(row.path, row.mine)}</TableCell>
            <TableCell>{show(row.path, row.theirs)}</TableCell>
          </TableRow>
        ))}
        {rows.length === 0 && (
          <TableRow>
            <TableCell colSpan={3}>No difference.</TableCell>
          </TableRow>
        )}
      </TableBody>
    </Table>
  )
}
