import { Alert, Box, Button, Typography } from '@mui/material'
import { useRef, useState } from 'react'
import * as declared from '../../api/declared'
import { Failure, type Schemas } from '../../api/client'
import type { Bay, KeepOut } from '../../api/model'
import { setBay } from '../../drawing/edits'
import { Choice } from '../../fields/fields'
import { Folded } from '../Folded'
import { freshKeepOut } from './freshKeepOut'
import { KeepOutFields } from './KeepOutFields'
import { sendScan } from './scans'
import { freshName } from '../../work/naming'

const KINDS: { kind: 'box' | 'cylinder' | 'slope'; label: string }[] = [
  { kind: 'box', label: 'Add a keep-out' },
  { kind: 'cylinder', label: 'Add a round one' },
  { kind: 'slope', label: 'Add a slope' },
]

/** What shares the space: boxes, shafts and pipes, leaning panels, scanned parts. */
export function KeepOuts({ bay, readOnly }: { bay: Bay; readOnly: boolean }) {
  const full = readOnly || bay.keep_outs.length >= declared.Bay.most.keep_outs
  const add = (keepOut: KeepOut) => setBay({ keep_outs: [...bay.keep_outs, keepOut] })
  return (
    <>
      {bay.keep_outs.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          None yet. Add the exhaust, a shaft, a frame rail, a sloping lid line: whatever shares the space.
        </Typography>
      )}
      {bay.keep_outs.map((keepOut, place) => (
        <KeepOutFields key={keepOut.id} keepOut={keepOut} place={place} bay={bay} readOnly={readOnly} />
      ))}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {KINDS.map(({ kind, label }) => (
          <Button key={kind} variant="outlined" disabled={full} onClick={() => add(freshKeepOut(kind, bay))}>
            {label}
          </Button>
        ))}
      </Box>
      <Folded title="A scan of a part or of the cavity">
        <ScanUpload
          disabled={full}
          onScan={(scan) =>
            add({
              ...declared.ScanKeepOut.defaults,
              ...freshName('scan', bay.keep_outs),
              kind: 'scan',
              name: scan.name.replace(/\.stl$/i, '') || 'scan',
              scan: scan.fingerprint,
            })
          }
        />
      </Folded>
    </>
  )
}

function ScanUpload({
  disabled,
  onScan,
}: {
  disabled: boolean
  onScan: (scan: Awaited<ReturnType<typeof sendScan>>) => void
}) {
  const input = useRef<HTMLInputElement>(null)
  const [unit, setUnit] = useState<Schemas['ScanQuery']['unit']>('mm')
  const [state, setState] = useState<{ severity: 'error' | 'info'; text: string } | null>(null)
  const read = async (file: globalThis.File) => {
    setState({ severity: 'info', text: `Reading ${file.name}…` })
    try {
      onScan(await sendScan(file, unit))
      setState(null)
    } catch (error) {
      setState({ severity: 'error', text: error instanceof Failure ? error.message : String(error) })
    }
  }
  return (
    <>
      <Typography variant="body2" color="textSecondary">
        An STL file, text or binary, of up to 200 000 triangles, in the bay’s axes. It doesn’t say its unit, so you have
        to.
      </Typography>
      <Choice
        label="Unit of the file"
        value={unit}
        options={['mm', 'cm', 'm', { value: 'in', label: 'an inch' }]}
        disabled={disabled}
        onChange={setUnit}
      />
      <input
        ref={input}
        type="file"
        accept=".stl"
        hidden
        aria-label="STL file"
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file) void read(file)
        }}
      />
      <Button variant="outlined" disabled={disabled} onClick={() => input.current?.click()}>
        Import an STL file
      </Button>
      {state && <Alert severity={state.severity}>{state.text}</Alert>}
    </>
  )
}
