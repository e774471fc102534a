import { Alert, Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import type { Build, OperationState } from '../api/model'
import { NothingHere } from '../app/Message'
import { useSession } from '../app/session'
import { jobQuery } from '../jobs/queries'
import { Actions } from './Actions'
import { atHand, useBuild } from './build'
import { OperationCard } from './OperationCard'
import { OperationList } from './OperationList'
import { PhotoStrip } from './PhotoStrip'
import { WaitingStrip } from './WaitingStrip'

/** The bench: a job's work on a phone, one operation a screen. */
export default function FloorPage() {
  const number = Number(useParams().number)
  const [search] = useSearchParams()
  const job = useQuery({ ...jobQuery(number), enabled: Number.isInteger(number) })
  if (!Number.isInteger(number)) return <NothingHere />
  if (!job.data) return job.error ? <Alert severity="error">{job.error.message}</Alert> : null
  const { designs } = job.data
  const wanted = Number(search.get('design'))
  const chosen = designs.find((design) => design.id === wanted) ?? (designs.length === 1 ? designs[0] : undefined)
  if (chosen) return <Floor key={chosen.id} designId={chosen.id} />
  return (
    <Box component="main" sx={{ p: 2, display: 'flex', flexDirection: 'column', gap: 1 }}>
      <h1>
        {job.data.number} {job.data.title}
      </h1>
      {designs.length === 0 && <p>No design yet: there is nothing to build.</p>}
      {designs.map((design) => (
        <Button key={design.id} component={Link} to={`?design=${design.id}`} variant="outlined" sx={{ minHeight: 60 }}>
          {design.name}
        </Button>
      ))}
    </Box>
  )
}

/** The photos of one step and of the gates before it. */
function ofStep(build: Build, { operation }: OperationState): Build {
  const gates = build.state.gates.filter((gate) => gate.gate.before.includes(operation.id)).map((gate) => gate.gate.id)
  const subjects = new Set([operation.id, ...gates])
  return { ...build, photos: build.photos.filter((photo) => subjects.has(photo.of.subject)) }
}

function Floor({ designId }: { designId: number }) {
  const { inks } = useTheme()
  const session = useSession()
  const { build, error } = useBuild(designId)
  const [at, setAt] = useState<string | null>(null)
  const [photo, setPhoto] = useState<string | null>(null)
  const [listed, setListed] = useState(false)
  if (!build) return error ? <Alert severity="error">{error.message}</Alert> : null
  const { operations } = build.state
  const mayWrite = session.data?.role !== 'viewer'
  const place = Math.max(
    0,
    operations.findIndex((one) => one.operation.id === (at ?? atHand(build))),
  )
  const state = operations[place]
  const go = (by: number) =>
    setAt(operations[Math.min(operations.length - 1, Math.max(0, place + by))]?.operation.id ?? null)
  const step = (by: number, isEnd: boolean) => (
    <Button
      aria-label={by < 0 ? 'Step before' : 'Step after'}
      disabled={isEnd}
      onClick={() => go(by)}
      sx={{ minHeight: 56, minWidth: 56, fontSize: '1.4rem' }}
    >
      {by < 0 ? '‹' : '›'}
    </Button>
  )
  const [before, after] = [step(-1, place === 0), step(1, place === operations.length - 1)]
  return (
    <Box component="main" sx={{ display: 'flex', flexDirection: 'column', height: '100%', minHeight: 0 }}>
      <Box
        component="header"
        sx={{
          display: 'flex',
          alignItems: 'center',
          background: inks.plate,
          color: inks.plateInk,
          pl: 2,
          minHeight: 56,
        }}
      >
        <Box sx={{ flex: 1, minWidth: 0, lineHeight: 1.2 }}>
          <Link to={`/jobs/${build.job_number}`} style={{ color: 'inherit', fontWeight: 650 }}>
            {build.job_number} {build.job_title}
          </Link>
          <Box sx={{ fontSize: 13, opacity: 0.85 }}>{build.design}</Box>
        </Box>
        <Button sx={{ color: 'inherit', minHeight: 56 }} aria-expanded={listed} onClick={() => setListed(!listed)}>
          {listed ? 'This step' : 'All steps'}
        </Button>
      </Box>
      <WaitingStrip />
      <Box sx={{ flex: 1, minHeight: 0, overflowY: 'auto', p: 2 }}>
        {!state ? (
          <p>Nothing to build yet: the design has no shell that can be made of sheet.</p>
        ) : listed ? (
          <OperationList
            build={build}
            at={state.operation.id}
            onChoose={(id) => {
              setAt(id)
              setListed(false)
            }}
          />
        ) : (
          <>
            <OperationCard key={state.operation.id} build={build} state={state} mayWrite={mayWrite} />
            <PhotoStrip build={ofStep(build, state)} open={photo} onOpen={setPhoto} mayWrite={mayWrite} />
          </>
        )}
      </Box>
      {state && !listed && (
        <Box sx={{ p: 1, background: inks.sheet, borderTop: `1px solid ${inks.line}` }}>
          {mayWrite ? (
            <Actions build={build} state={state} onSettled={() => setAt(null)} before={before} after={after} />
          ) : (
            <Box sx={{ display: 'flex', justifyContent: 'space-between' }}>
              {before}
              {after}
            </Box>
          )}
        </Box>
      )}
    </Box>
  )
}
