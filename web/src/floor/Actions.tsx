import { Box, Button } from '@mui/material'
import { type ReactNode, useState } from 'react'
import type { Build, OperationState } from '../api/model'
import { isOpen, record } from './build'
import { MoreMenu } from './MoreMenu'
import { NoteDialog } from './NoteDialog'
import { PhotoButton } from './PhotoButton'

interface Props {
  build: Build
  state: OperationState
  /** After it is done the next one comes. */
  onSettled?: () => void
  /** What stands at the ends of the lower row. */
  before?: ReactNode
  after?: ReactNode
}

const LARGE = { minHeight: 64, flex: 1, fontSize: '1.1rem' }
const ROW = { display: 'flex', gap: 1, justifyContent: 'space-between' }

/** What is done with an operation: begin, leave, end; a photo, a note; skip it. */
export function Actions({ build, state, onSettled, before, after }: Props) {
  const [noting, setNoting] = useState(false)
  const subject = state.operation.id
  const held = state.waits_for.length > 0 || state.shut.length > 0 || state.away.length > 0
  const say = (kind: 'started' | 'paused' | 'done') => record(build, { kind, subject })
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
      <Box sx={ROW}>
        {state.standing === 'started' ? (
          <Button variant="outlined" sx={LARGE} onClick={() => void say('paused')}>
            Pause
          </Button>
        ) : (
          <Button variant="outlined" sx={LARGE} disabled={!isOpen(state)} onClick={() => void say('started')}>
            Start
          </Button>
        )}
        <Button
          variant="contained"
          sx={LARGE}
          disabled={!isOpen(state) || held}
          onClick={() => {
            void say('done')
            onSettled?.()
          }}
        >
          Done
        </Button>
      </Box>
      <Box sx={ROW}>
        {before}
        <PhotoButton
          job={build.job_number}
          label="Photo"
          large
          onTaken={(id) => void record(build, { kind: 'note', subject, photos: [id] })}
        />
        <Button variant="outlined" sx={{ minHeight: 56 }} onClick={() => setNoting(true)}>
          Note
        </Button>
        <MoreMenu build={build} state={state} onSettled={onSettled} />
        {after}
      </Box>
      {noting && <NoteDialog build={build} subject={subject} onClose={() => setNoting(false)} />}
    </Box>
  )
}
