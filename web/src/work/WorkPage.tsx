import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { createPortal } from 'react-dom'
import { Link, useNavigate, useParams } from 'react-router'
import { api, asked, Failure, type Schemas } from '../api/client'
import { Message, NothingHere } from '../app/Message'
import { useSession } from '../app/session'
import { stationBeside, stationOf } from '../stations/registry'
import type { Station } from '../stations/station'
import { useUnits } from '../units/useUnits'
import { AtStation } from './AtStation'
import { ConflictDialog } from './ConflictDialog'
import { useEvaluating } from './evaluate'
import { Findings } from './Findings'
import { RenameDialog } from './RenameDialog'
import { RevisionsDialog } from './RevisionsDialog'
import { SaveState } from './SaveState'
import { begin, useSaving, watchForSaving } from './saving'
import { Stations } from './Stations'
import { redo, setAsks, setMark, stopTrial, undo, useSteps, useWork } from './store'
import { Tally } from './Tally'

const NOTHING_MORE: readonly string[] = []

/** Opens a design and hands it to the bench. */
export default function WorkPage() {
  const { designId = '', station = 'bay' } = useParams()
  const id = Number(designId)
  const session = useSession()
  const loaded = useQuery({
    queryKey: ['design', id],
    enabled: Number.isInteger(id),
    gcTime: 0,
    staleTime: Infinity,
    queryFn: () => asked(api.GET('/api/designs/{design_id}', { params: { path: { design_id: id } } })),
  })
  const at = stationOf(station)
  if (!Number.isInteger(id) || !at) return <NothingHere />
  if (loaded.error) {
    if (loaded.error instanceof Failure && loaded.error.status === 404) return <NothingHere />
    return (
      <Message title="This design can’t be opened just now" text={loaded.error.message}>
        <Button variant="contained" onClick={() => void loaded.refetch()}>
          Try again
        </Button>
      </Message>
    )
  }
  if (!loaded.data || !session.data) return <Message title="Opening the design" text="" />
  return <Bench key={id} opened={loaded.data} station={at} readOnly={session.data.role === 'viewer'} />
}

function Bench({ opened, station, readOnly }: { opened: Schemas['DesignOut']; station: Station; readOnly: boolean }) {
  const ready = useSaving((saving) => saving.designId === opened.id)
  const [everywhere, setEverywhere] = useState(false)
  const [turned, setTurned] = useState<Record<string, boolean>>({})
  useEffect(() => {
    begin(opened.id, opened.revision, opened.design, readOnly)
    return watchForSaving()
    // Only the first opening counts; later the store on screen leads.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [opened.id])
  const { nudge } = useUnits()
  useEffect(() => setMark(nudge), [nudge])
  useEffect(() => setAsks(station.asks ?? NOTHING_MORE), [station])
  useEvaluating()
  useKeys(opened.id, station.name)
  if (!ready) return null
  return (
    <>
      <HeaderParts opened={opened} />
      <Box component="main" sx={{ display: 'flex', flex: 1, minHeight: 0 }}>
        <Stations designId={opened.id} at={station.name} />
        <AtStation
          key={station.name}
          station={station}
          designId={opened.id}
          turned={turned[station.name]}
          hint={opened.guide[station.name]}
          onTurn={(to) => setTurned({ ...turned, [station.name]: to })}
          findings={<Findings designId={opened.id} station={station.name} everywhere={everywhere} />}
        />
      </Box>
      <Tally
        onFindings={() => {
          setEverywhere(!everywhere)
          requestAnimationFrame(() => document.getElementById('findings')?.scrollIntoView({ block: 'start' }))
        }}
      />
      <ConflictDialog />
    </>
  )
}

/** Job, design, undo, saving: the page's part of the strip along the top. */
function HeaderParts({ opened }: { opened: Schemas['DesignOut'] }) {
  const { inks } = useTheme()
  const steps = useSteps()
  const readOnly = useWork((work) => work.readOnly)
  const [revisions, setRevisions] = useState(false)
  const [name, setName] = useState(opened.name)
  const [renaming, setRenaming] = useState(false)
  const slot = document.getElementById('header-slot')
  const button = { color: inks.plateInk, minWidth: 44, '&.Mui-disabled': { color: `${inks.plateInk}66` } }
  if (!slot) return null
  return createPortal(
    <>
      <Box sx={{ flex: 1, minWidth: 0, px: 1, fontSize: 14, lineHeight: 1.2 }}>
        <Box sx={{ fontWeight: 650, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          <Link
            to={`/jobs/${opened.job_number}`}
            title="This job: its designs, findings, build, papers, log"
            style={{ color: inks.plateInk }}
          >
            {opened.job_number} {opened.job_title}
          </Link>
        </Box>
        <Box sx={{ opacity: 0.8, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {name}
          {opened.customer ? ` for ${opened.customer}` : ''}
        </Box>
      </Box>
      <SaveState />
      <Button sx={button} disabled={readOnly || steps < 10_000} onClick={undo} title="Undo (Ctrl+Z)">
        Undo
      </Button>
      <Button sx={button} disabled={readOnly || steps % 10_000 === 0} onClick={redo} title="Redo (Ctrl+Shift+Z)">
        Redo
      </Button>
      <Button sx={button} disabled={readOnly} onClick={() => setRenaming(true)}>
        Rename
      </Button>
      {renaming && (
        <RenameDialog
          designId={opened.id}
          name={name}
          onClose={(next) => {
            setName(next)
            setRenaming(false)
          }}
        />
      )}
      <Button sx={button} onClick={() => setRevisions(true)}>
        Revisions
      </Button>
      <RevisionsDialog designId={opened.id} open={revisions} onClose={() => setRevisions(false)} />
    </>,
    slot,
  )
}

/** Undo, redo, and the stations up and down. */
function useKeys(designId: number, station: string) {
  const go = useNavigate()
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target instanceof HTMLElement ? event.target : null
      if (target?.dataset.typing) return
      if (event.key === 'Escape') stopTrial()
      const by = event.altKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined
      const beside = by && stationBeside(station, by)
      if (beside) {
        event.preventDefault()
        void go(`/designs/${designId}/${beside.name}`)
      }
      if (!(event.ctrlKey || event.metaKey)) return
      const key = event.key.toLowerCase()
      if (key !== 'z' && key !== 'y') return
      event.preventDefault()
      if (key === 'y' || event.shiftKey) redo()
      else undo()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [go, designId, station])
}
