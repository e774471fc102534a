import { Alert, Box, Button, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material'
import { type ReactNode, useState } from 'react'
import type { Fault } from '../api/client'
import { sendFile } from '../api/sendFile'
import { FileButton } from '../fields/FileButton'
import { Problems } from '../stations/Problems'

interface Props<T extends { name: string }> {
  what: 'pumps' | 'parts' | 'senders' | 'line_parts'
  items: T[]
  columns: { name: string; cell: (item: T) => ReactNode }[]
  disabled: boolean
  onChange: (items: T[]) => void
}

/** What the shop keeps of a kind: in from CSV, out as CSV. Named again in a file, it is replaced. */
export function Library<T extends { name: string }>({ what, items, columns, disabled, onChange }: Props<T>) {
  const called = what.replace('_', ' ')
  const [told, setTold] = useState<{ problems: Fault[]; taken: number } | null>(null)
  const [failed, setFailed] = useState('')
  const read = async (file: globalThis.File) => {
    setFailed('')
    setTold(null)
    try {
      const answer = await sendFile<Record<string, unknown> & { problems: Fault[] }>(`/api/workshop/${what}.csv`, file)
      const fresh = answer[what] as T[]
      onChange([...items.filter((item) => !fresh.some((other) => other.name === item.name)), ...fresh])
      setTold({ problems: answer.problems, taken: fresh.length })
    } catch (error) {
      setFailed(error instanceof Error ? error.message : String(error))
    }
  }
  const taken = told && `${told.taken === 1 ? `1 ${called.slice(0, -1)}` : `${told.taken} ${called}`} read.`
  const keep = 'Save the workshop to keep what was read.'
  return (
    <>
      {items.length > 0 && (
        <Box
          sx={{ maxHeight: 320, overflowY: 'auto', mb: 2 }}
          tabIndex={0}
          role="region"
          aria-label={`The shop’s ${called}`}
        >
          <Table size="small" stickyHeader>
            <TableHead>
              <TableRow>
                <TableCell>Name</TableCell>
                {columns.map((column) => (
                  <TableCell key={column.name}>{column.name}</TableCell>
                ))}
                <TableCell />
              </TableRow>
            </TableHead>
            <TableBody>
              {items.map((item) => (
                <TableRow key={item.name}>
                  <TableCell>{item.name}</TableCell>
                  {columns.map((column) => (
                    <TableCell key={column.name}>{column.cell(item)}</TableCell>
                  ))}
                  <TableCell align="right">
                    <Button
                      disabled={disabled}
                      aria-label={`Remove ${item.name}`}
                      onClick={() => onChange(items.filter((other) => other !== item))}
                    >
                      Remove
                    </Button>
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Box>
      )}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <FileButton
          label={`Take ${called} from CSV`}
          accept=".csv,text/csv"
          disabled={disabled}
          onFile={(file) => void read(file)}
        />
        <Button variant="outlined" href={`/api/workshop/${what}.csv`} download>
          {`${called[0]?.toUpperCase()}${called.slice(1)} as CSV`}
        </Button>
      </Box>
      {told && told.taken > 0 && told.problems.length === 0 && (
        <Alert severity="success" sx={{ mt: 1 }}>{`${taken} ${keep}`}</Alert>
      )}
      {told && <Problems problems={told.problems} taken={`${taken} ${told.taken > 0 ? keep : ''}`} />}
      {failed && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {failed}
        </Alert>
      )}
    </>
  )
}
