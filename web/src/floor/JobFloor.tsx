import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { queryOptions, useQueries, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, asked } from '../api/client'
import type { Build, LogRow } from '../api/model'
import type { Job } from '../jobs/queries'
import { useUnits } from '../units/useUnits'
import { isSettled } from './build'
import { LogRows } from './LogRows'
import { PhotoStrip } from './PhotoStrip'
import { STANDING_WORDS } from './proof/proof'
import { buildQuery } from './query'
import { moment } from './time'

const logQuery = (number: number) =>
  queryOptions({
    queryKey: ['log', number],
    queryFn: () => asked(api.GET('/api/jobs/numbered/{number}/log', { params: { path: { number } } })),
  })

/** How far each design of a job is built, and what was passed unmet. */
export function JobFloor({ job }: { job: Job }) {
  const [open, setOpen] = useState<string | null>(null)
  const builds = useQueries({
    queries: job.designs.map((design) => ({ ...buildQuery(design.id), refetchInterval: false as const })),
  })
  const found = builds.flatMap((one) => (one.data ? [one.data as Build] : []))
  const first = found[0]
  return (
    <>
      {found.map((build) => (
        <Far key={build.design_id} build={build} />
      ))}
      {first && <PhotoStrip build={first} open={open} onOpen={setOpen} />}
    </>
  )
}

function Far({ build }: { build: Build }) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const { operations, gates, next, proofs } = build.state
  const settled = operations.filter(isSettled).length
  const coming = operations.find((one) => one.operation.id === next)
  const changed = operations.filter((one) => one.changed.length > 0).length
  const held = operations.find((one) => !isSettled(one) && one.shut.length > 0 && !one.waits_for.length)
  const gate = held && gates.find((one) => one.gate.id === held.shut[0])
  return (
    <Box data-build={build.design_id} sx={{ borderTop: `1px solid ${inks.line}`, py: 1 }}>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button component={Link} to={`/designs/${build.design_id}/build`} variant="outlined">
          {build.design}
        </Button>
        <Box sx={{ flex: 1, minWidth: 220 }}>
          {settled} of {operations.length} steps done
          {coming && settled > 0 && `, next: ${say(coming.operation.title)}`}
          {!coming && gate && `, held by: ${say(gate.gate.title)}`}
        </Box>
        <Button component={Link} to={`/floor/${build.job_number}?design=${build.design_id}`}>
          At the bench
        </Button>
      </Box>
      {proofs
        .filter((one) => one.standing !== 'not tested')
        .map((one) => (
          <Box
            key={one.cell}
            data-proof={one.standing}
            sx={{ color: one.standing === 'passed' ? inks.good : inks.caution }}
          >
            Leak test of the {one.cell}: {STANDING_WORDS[one.standing]}
            {one.lacks && one.standing !== 'running' && `, ${say(one.lacks)}`}
          </Box>
        ))}
      {changed > 0 && (
        <Box sx={{ color: inks.caution }}>
          {changed} done {changed === 1 ? 'step' : 'steps'} touched by a later change of the design
        </Box>
      )}
      {gates
        .filter((one) => one.standing === 'overridden')
        .map((one) => (
          <Box key={one.gate.id} data-override sx={{ color: inks.stop }}>
            Passed unmet: {say(one.gate.title)}, by {one.override?.name}
            {one.override && `, ${moment(one.override.when)}: ${one.override.reason}`}
          </Box>
        ))}
    </Box>
  )
}

/** What the shop recorded, newest first, and the whole of it as files. */
export function JobLog({ job }: { job: Job }) {
  const first = job.designs[0]
  const log = useQuery(logQuery(job.number))
  const build = useQuery({ ...buildQuery(first?.id ?? 0), enabled: Boolean(first), refetchInterval: false })
  return (
    <>
      <LogRows
        rows={(log.data ?? []) as LogRow[]}
        {...(build.data ? { build: build.data as Build } : {})}
        mayWrite={false}
      />
      {(log.data?.length ?? 0) > 0 && (
        <Box sx={{ display: 'flex', gap: 2, mt: 1 }}>
          {(['csv', 'jsonl'] as const).map((kind) => (
            <a
              key={kind}
              href={`/api/jobs/numbered/${job.number}/log.${kind}`}
              download
              style={{ color: 'inherit', padding: '5px 0' }}
            >
              Whole log, {kind === 'csv' ? 'CSV' : 'JSON lines'}
            </a>
          ))}
        </Box>
      )}
    </>
  )
}
