import { Box, Button, TextField } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build } from '../api/model'
import { record } from './build'
import { moment } from './time'

const MOST = 400

/** What this revision taught, and what may be otherwise in the next. */
export function LearntList({ build, mayWrite }: { build: Build; mayWrite: boolean }) {
  const [what, setWhat] = useState('')
  const [next, setNext] = useState('')
  return (
    <>
      {build.state.learnt.map((one) => (
        <LearntLine key={one.learnt.id} one={one} />
      ))}
      {mayWrite && (
        <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.25 }}>
          <TextField
            label="What was learnt"
            value={what}
            multiline
            onChange={(event) => setWhat(event.target.value.slice(0, MOST))}
          />
          <TextField
            label="What may change next"
            value={next}
            multiline
            onChange={(event) => setNext(event.target.value.slice(0, MOST))}
          />
          <Button
            variant="outlined"
            disabled={!what.trim()}
            onClick={() => {
              void record(build, { kind: 'learnt', what: what.trim(), next: next.trim() })
              setWhat('')
              setNext('')
            }}
          >
            Record as learnt
          </Button>
        </Box>
      )}
    </>
  )
}

export function LearntLine({ one }: { one: Build['state']['learnt'][number] }) {
  const { inks } = useTheme()
  return (
    <Box data-learnt sx={{ borderTop: `1px solid ${inks.line}`, pt: 1 }}>
      {one.learnt.what}
      {one.learnt.next && (
        <Box>
          <b>Next:</b> {one.learnt.next}
        </Box>
      )}
      <Box sx={{ fontSize: 14, color: 'text.secondary' }}>
        {one.learnt.revision ? `r${one.learnt.revision}, ` : ''}
        {one.author}, {moment(one.when)}
      </Box>
    </Box>
  )
}
