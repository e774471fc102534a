import { Alert, Box, Button, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schemas } from '../../api/client'
import type { Lap } from '../../api/model'
import { sendFile } from '../../api/sendFile'
import { FileButton } from '../../fields/FileButton'
import { Choice, Toggle } from '../../fields/fields'
import { KeptTrace, TriedTrace, type Columns, columnsText } from './LapTrace'
import { lapsQuery } from './slosh'

const WHAT = [
  ['time', 'Time'],
  ['forward', 'Forward acceleration'],
  ['left', 'Sideways acceleration'],
  ['up', 'Vertical acceleration'],
  ['throttle', 'Throttle'],
  ['fuel', 'Fuel flow'],
] as const
const NONE = 'not there'

/** Take a lap from a logger's file: look at it, say which column is what, keep it. */
export function LapImport({ readOnly, onKept }: { readOnly: boolean; onKept: (id: number) => void }) {
  const queries = useQueryClient()
  const [file, setFile] = useState<globalThis.File | null>(null)
  const [look, setLook] = useState<Schemas['LapLook'] | null>(null)
  const [columns, setColumns] = useState<Columns>({
    time: '',
    forward: '',
    left: '',
    up: '',
    throttle: '',
    fuel: '',
    fuel_unit: 'L/h',
    time_unit: 's',
    unit: 'g',
    forward_flipped: false,
    left_flipped: false,
    up_has_gravity: true,
  })
  const [problem, setProblem] = useState('')
  const tried = async (what: () => Promise<void>) => {
    setProblem('')
    try {
      await what()
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error))
    }
  }
  const take = (chosen: globalThis.File) =>
    tried(async () => {
      setLook(null)
      const seen = await sendFile<Schemas['LapLook']>('/api/laps/look', chosen)
      setFile(chosen)
      setLook(seen)
      setColumns({ ...columns, ...(seen.guess as Partial<Columns>) })
    })
  const keep = () =>
    tried(async () => {
      if (!file) return
      const name = file.name.replace(/\.\w+$/, '').slice(0, 80)
      const made = await sendFile<Lap>(
        `/api/laps?name=${encodeURIComponent(name)}&columns=${columnsText(columns)}`,
        file,
      )
      await queries.invalidateQueries({ queryKey: lapsQuery.queryKey })
      setLook(null)
      onKept(made.id)
    })
  return (
    <>
      <KeptTrace />
      <FileButton
        label="Import a lap from CSV"
        accept=".csv,.txt,text/csv"
        disabled={readOnly}
        onFile={(chosen) => void take(chosen)}
      />
      {problem && <Alert severity="error">{problem}</Alert>}
      {look && (
        <>
          <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="First rows of the file">
            <Table size="small">
              <TableHead>
                <TableRow>
                  {look.headings.map((heading, n) => (
                    <TableCell key={n}>{heading}</TableCell>
                  ))}
                </TableRow>
              </TableHead>
              <TableBody>
                {look.rows.map((row, n) => (
                  <TableRow key={n}>
                    {row.map((cell, m) => (
                      <TableCell key={m}>{cell}</TableCell>
                    ))}
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          </Box>
          {WHAT.map(([name, label]) => (
            <Choice
              key={name}
              label={label}
              value={columns[name] || NONE}
              options={[NONE, ...look.headings.filter(Boolean)]}
              onChange={(chosen) => setColumns({ ...columns, [name]: chosen === NONE ? '' : chosen })}
            />
          ))}
          <Choice
            label="Time unit"
            value={columns.time_unit}
            options={['s', 'ms'] as const}
            onChange={(time_unit) => setColumns({ ...columns, time_unit })}
          />
          <Choice
            label="Acceleration unit"
            value={columns.unit}
            options={['g', 'm/s²'] as const}
            onChange={(unit) => setColumns({ ...columns, unit })}
          />
          {columns.fuel && (
            <Choice
              label="Fuel flow unit"
              value={columns.fuel_unit}
              options={['L/h', 'cm³/min'] as const}
              onChange={(fuel_unit) => setColumns({ ...columns, fuel_unit })}
            />
          )}
          <Toggle
            label="Braking is positive"
            checked={columns.forward_flipped}
            onChange={(forward_flipped) => setColumns({ ...columns, forward_flipped })}
          />
          <Toggle
            label="Right turns are positive"
            checked={columns.left_flipped}
            onChange={(left_flipped) => setColumns({ ...columns, left_flipped })}
          />
          <Toggle
            label="Vertical channel reads 1 g at rest"
            checked={columns.up_has_gravity}
            onChange={(up_has_gravity) => setColumns({ ...columns, up_has_gravity })}
          />
          {file && <TriedTrace file={file} columns={columns} />}
          <Button variant="contained" onClick={() => void keep()}>
            Keep this lap
          </Button>
        </>
      )}
    </>
  )
}
