import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { ReactNode } from 'react'

/** A station's figures side by side, where the drawing stands otherwise. */
export function Board({ label, children }: { label: string; children: ReactNode }) {
  const { inks } = useTheme()
  return (
    <Box
      component="section"
      aria-label={label}
      tabIndex={0}
      sx={{ flex: 1, overflow: 'auto', background: inks.sheet, p: 3, display: 'flex', flexDirection: 'column', gap: 3 }}
    >
      {children}
    </Box>
  )
}

export function Block({ title, about, children }: { title: string; about?: string; children: ReactNode }) {
  return (
    <section>
      <Typography variant="h2">{title}</Typography>
      {about && (
        <Typography variant="body2" color="textSecondary" sx={{ maxWidth: '64em' }}>
          {about}
        </Typography>
      )}
      {children}
    </section>
  )
}

export interface Column {
  name: string
  right?: boolean
  /** Has room for a line of words. */
  wide?: boolean
}

/** What a cell says, and under it quietly what belongs to it. */
export function Two({ main, more }: { main: ReactNode; more: ReactNode }) {
  return (
    <>
      {main}
      <Typography component="span" variant="body2" color="textSecondary" sx={{ display: 'block' }}>
        {more}
      </Typography>
    </>
  )
}

const WIDE = '11em'
const MANY = 8

/** A plain table: its columns' names, and a row of cells a thing. */
export function Sheet({
  label,
  columns,
  rows,
  width = 900,
}: {
  label: string
  columns: Column[]
  rows: { key: string; cells: ReactNode[]; strong?: boolean }[]
  width?: number
}) {
  const { inks } = useTheme()
  return (
    <Table
      size="small"
      aria-label={label}
      sx={{
        maxWidth: width,
        '& td, & th': columns.length > MANY ? { px: 1, '&:first-of-type': { pl: 1.5 } } : undefined,
      }}
    >
      <TableHead>
        <TableRow>
          {columns.map((column, place) => (
            <TableCell
              key={column.name}
              align={column.right ? 'right' : 'left'}
              sx={{ pl: place ? undefined : 0, minWidth: column.wide ? WIDE : undefined }}
            >
              {column.name}
            </TableCell>
          ))}
        </TableRow>
      </TableHead>
      <TableBody>
        {rows.map((row) => (
          <TableRow key={row.key} sx={row.strong ? { boxShadow: `inset 4px 0 0 ${inks.hand}` } : undefined}>
            {row.cells.map((cell, place) => (
              <TableCell
                key={columns[place]?.name ?? place}
                align={columns[place]?.right ? 'right' : 'left'}
                sx={{
                  pl: place || columns.length > MANY ? undefined : row.strong ? 1.5 : 0,
                  whiteSpace: columns[place]?.right ? 'nowrap' : undefined,
                }}
              >
                {cell}
              </TableCell>
            ))}
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}
