import { Button, Menu, MenuItem } from '@mui/material'
import { useRef, useState } from 'react'
import type { Build, OperationState } from '../api/model'
import { isOpen, record } from './build'
import { AddStepDialog, MoveDialog } from './PlanDialogs'
import { ReasonDialog } from './ReasonDialog'

interface Props {
  build: Build
  state: OperationState
  onSettled?: (() => void) | undefined
}

/** What is done seldom: skip, move, a step of one's own, and taking back what was recorded by mistake. */
export function MoreMenu({ build, state, onSettled }: Props) {
  const anchor = useRef<HTMLButtonElement>(null)
  const [open, setOpen] = useState(false)
  const [asking, setAsking] = useState<'skip' | 'move' | 'add' | null>(null)
  const subject = state.operation.id
  const ask = (what: typeof asking) => () => {
    setOpen(false)
    setAsking(what)
  }
  const close = () => setAsking(null)
  return (
    <>
      <Button
        ref={anchor}
        sx={{ minHeight: 56 }}
        aria-haspopup="menu"
        aria-expanded={open}
        onClick={() => setOpen(true)}
      >
        More
      </Button>
      <Menu open={open} anchorEl={() => anchor.current} onClose={() => setOpen(false)}>
        <MenuItem sx={ITEM} disabled={!isOpen(state)} onClick={ask('skip')}>
          Skip, with reason
        </MenuItem>
        <MenuItem sx={ITEM} disabled={!isOpen(state)} onClick={ask('move')}>
          Move to another place
        </MenuItem>
        <MenuItem sx={ITEM} onClick={ask('add')}>
          Add a step after it
        </MenuItem>
        <MenuItem
          sx={ITEM}
          disabled={!state.entry}
          onClick={() => {
            setOpen(false)
            void record(build, { kind: 'correction', of: state.entry })
          }}
        >
          Take back “{state.standing === 'open' ? 'paused' : state.standing}”
        </MenuItem>
      </Menu>
      {asking === 'skip' && (
        <ReasonDialog
          title="Skip this operation"
          label="Skip"
          onClose={close}
          onGiven={(reason) => {
            void record(build, { kind: 'skipped', subject, reason })
            onSettled?.()
          }}
        />
      )}
      {asking === 'move' && <MoveDialog build={build} state={state} onClose={close} />}
      {asking === 'add' && <AddStepDialog build={build} after={subject} onClose={close} />}
    </>
  )
}

const ITEM = { minHeight: 52 }
