import { Alert, Box, Button, IconButton, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useRef, useState } from 'react'
import { type Fault, Failure } from '../../api/client'
import type { Corner, ProfileShell } from '../../api/model'
import { changeCorner, chamferCorner, removeCorner, setShell, splitEdge } from '../../drawing/edits'
import { Choice, LengthField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { select, useFault, useWork } from '../../work/store'
import { sendFile } from '../../api/sendFile'

/** The corners of a profile as a table; the one at hand can be chamfered, removed, its edge split. */
export function ProfileTable({ shell, readOnly }: { shell: ProfileShell; readOnly: boolean }) {
  const chosen = useWork((work) => (work.at?.kind === 'corner' ? work.at.place : null))
  const units = useUnits()
  const [chamfer, setChamfer] = useState(40)
  const corner = chosen === null ? undefined : shell.corners[chosen]
  return (
    <>
      <Typography variant="body2" color="textSecondary">
        Drag a corner on the drawing, press the + on an edge for a new one, Delete to take the one at hand away. Outside
        of the metal, in {units.lengthUnit}; up from the underside, across from the datum edge.
      </Typography>
      <Box
        role="table"
        aria-label="Corners of the profile"
        sx={{ display: 'grid', gridTemplateColumns: '40px 1fr 1fr 1fr', gap: 0.75, alignItems: 'start' }}
      >
        {shell.corners.map((item, place) => (
          <CornerRow key={place} corner={item} place={place} chosen={place === chosen} readOnly={readOnly} />
        ))}
      </Box>
      {corner && chosen !== null && (
        <>
          <Choice
            label={`Corner ${chosen + 1} is`}
            value={corner.joint}
            options={[
              { value: 'bend', label: 'bent round' },
              { value: 'weld', label: 'welded, sharp' },
            ]}
            disabled={readOnly}
            onChange={(joint) => changeCorner(chosen, { joint })}
          />
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
            <LengthField
              label="Chamfer"
              value={chamfer}
              disabled={readOnly}
              onCommit={(mm) => mm !== null && mm > 0 && setChamfer(mm)}
            />
            <Button
              variant="outlined"
              disabled={readOnly}
              onClick={() => {
                chamferCorner(chosen, chamfer)
                select(null)
              }}
            >
              Chamfer corner {chosen + 1}
            </Button>
            <Button variant="outlined" disabled={readOnly} onClick={() => splitEdge(chosen)}>
              Split edge after it
            </Button>
            <Button
              variant="outlined"
              disabled={readOnly || shell.corners.length <= 3}
              onClick={() => {
                removeCorner(chosen)
                select(null)
              }}
            >
              Remove corner {chosen + 1}
            </Button>
          </Box>
        </>
      )}
      <OutlineImport readOnly={readOnly} />
    </>
  )
}

function CornerRow({
  corner,
  place,
  chosen,
  readOnly,
}: {
  corner: Corner
  place: number
  chosen: boolean
  readOnly: boolean
}) {
  const { inks } = useTheme()
  const base = `shell.corners.${place}`
  const whole = useFault(base)
  const field = (label: string, name: 'across_mm' | 'up_mm' | 'bow_mm', fault?: Fault) => (
    <Box role="cell">
      <LengthField
        compact
        label={label}
        value={corner[name]}
        path={`${base}.${name}`}
        fault={fault}
        disabled={readOnly}
        onCommit={(mm) => mm !== null && changeCorner(place, { [name]: mm })}
      />
    </Box>
  )
  return (
    <Box role="row" sx={{ display: 'contents' }}>
      <Box role="rowheader">
        <IconButton
          size="small"
          aria-pressed={chosen}
          aria-label={`Corner ${place + 1} at hand`}
          onClick={() => select(chosen ? null : { kind: 'corner', place })}
          sx={{
            border: `2px solid ${chosen ? inks.hand : inks.line}`,
            color: chosen ? inks.hand : 'text.primary',
            fontSize: 14,
            fontWeight: 700,
            width: 40,
            minWidth: 40,
          }}
        >
          {place + 1}
        </IconButton>
      </Box>
      {field('Across', 'across_mm', whole)}
      {field('Up', 'up_mm')}
      {field('Rolled by', 'bow_mm')}
    </Box>
  )
}

/** A profile from a drawing: one closed outline of lines and arcs. */
function OutlineImport({ readOnly }: { readOnly: boolean }) {
  const input = useRef<HTMLInputElement>(null)
  const [said, setSaid] = useState<{ severity: 'error' | 'success'; text: string } | null>(null)
  const { inText } = useUnits()
  const read = async (file: globalThis.File) => {
    try {
      const found = await sendFile<{ corners: Corner[]; remark: string }>('/api/outline', file)
      select(null)
      setShell({ corners: found.corners, shape: 'free' })
      setSaid({ severity: 'success', text: `Taken: ${found.remark}.` })
    } catch (error) {
      setSaid({ severity: 'error', text: error instanceof Failure ? error.message : String(error) })
    }
  }
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".dxf"
        hidden
        aria-label="DXF drawing"
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file) void read(file)
        }}
      />
      <Button variant="outlined" disabled={readOnly} onClick={() => input.current?.click()}>
        Import the profile from DXF
      </Button>
      {said && <Alert severity={said.severity}>{inText(said.text)}</Alert>}
    </>
  )
}
