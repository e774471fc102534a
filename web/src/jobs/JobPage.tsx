import { Alert, Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useQueries, useQuery } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import { Link, useParams } from 'react-router'
import type { Schemas } from '../api/client'
import { Failure } from '../api/client'
import type { StationMark } from '../api/model'
import { NothingHere } from '../app/Message'
import { useSession } from '../app/session'
import { JobFloor, JobLog } from '../floor/JobFloor'
import { papersQuery } from '../papers/Papers'
import { stationOf, stations } from '../stations/registry'
import type { Station } from '../stations/station'
import { useUnits } from '../units/useUnits'
import { SeverityMark, StationMarkIcon } from '../work/Marks'
import { DesignDialog } from './DesignDialog'
import { JobDialog } from './JobDialog'
import { type Job, jobQuery, standingQuery, timelineQuery } from './queries'

type Design = Job['designs'][number]
type Standing = Schemas['Evaluation']

/** One job: its designs as they stand, what needs attention, its papers, who did what. */
export default function JobPage() {
  const number = Number(useParams().number)
  const job = useQuery({ ...jobQuery(number), enabled: Number.isInteger(number) })
  if (!Number.isInteger(number) || (job.error instanceof Failure && job.error.status === 404)) return <NothingHere />
  return (
    <Box component="main" sx={{ flex: 1, overflowY: 'auto', px: { xs: 2, md: 4 }, py: 3 }}>
      {job.error && <Alert severity="error">{job.error.message}</Alert>}
      {job.data && <Overview job={job.data} />}
    </Box>
  )
}

function Overview({ job }: { job: Job }) {
  const session = useSession()
  const mayWrite = session.data?.role !== 'viewer'
  const [dialog, setDialog] = useState<'job' | 'design' | null>(null)
  const judged = useQueries({ queries: job.designs.map((design) => standingQuery(design.id, design.revision)) })
  const standing = judged.map((one) => one.data as Standing | undefined)
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 2, flexWrap: 'wrap', mb: 2 }}>
        <Typography variant="h1" sx={{ fontSize: '1.6rem' }}>
          {job.number} {job.title}
        </Typography>
        <Typography color="textSecondary" sx={{ mr: 'auto' }}>
          {[job.customer && `for ${job.customer}`, job.state].filter(Boolean).join(', ')}
        </Typography>
        <Button disabled={!mayWrite} onClick={() => setDialog('design')}>
          Add design
        </Button>
        <Button variant="outlined" disabled={!mayWrite} onClick={() => setDialog('job')}>
          Change job
        </Button>
      </Box>
      {job.note && <Typography sx={{ maxWidth: '70ch', mb: 2 }}>{job.note}</Typography>}
      <Part title="Designs">
        {job.designs.length === 0 && (
          <Typography color="textSecondary">No design yet: add one, and measure its space at Bay.</Typography>
        )}
        {job.designs.map((design, place) => (
          <DesignRow
            key={design.id}
            design={design}
            standing={standing[place]}
            problem={judged[place]?.error?.message}
          />
        ))}
      </Part>
      <Part title="Needs attention">
        <Attention designs={job.designs} standing={standing} />
      </Part>
      {job.designs.length > 0 && (
        <Part title="Build">
          <JobFloor job={job} />
        </Part>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' }, gap: 3, alignItems: 'start' }}>
        <Part title="Papers">
          {job.designs.map((design) => (
            <PapersOf key={design.id} design={design} />
          ))}
        </Part>
        <Box>
          <Part title="Shop’s log">
            <JobLog job={job} />
          </Part>
          <Part title="Changes of the designs">
            <Done number={job.number} />
          </Part>
        </Box>
      </Box>
      {dialog === 'job' && <JobDialog job={job} onClose={() => setDialog(null)} />}
      {dialog === 'design' && <DesignDialog job={job} onClose={() => setDialog(null)} />}
    </>
  )
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  const { inks } = useTheme()
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{ background: inks.sheet, border: `1px solid ${inks.line}`, p: 2, mb: 3 }}
    >
      <Typography variant="h2" sx={{ mb: 1.5 }}>
        {title}
      </Typography>
      {children}
    </Box>
  )
}

/** A design with its figures, and a mark for every station that leads there. */
function DesignRow({
  design,
  standing,
  problem,
}: {
  design: Design
  standing: Standing | undefined
  problem: string | undefined
}) {
  const { inks } = useTheme()
  const units = useUnits()
  const figures = standing?.shell?.figures
  const target = standing?.brief?.target?.litres
  return (
    <Box
      data-design={design.id}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        flexWrap: 'wrap',
        borderTop: `1px solid ${inks.line}`,
        py: 1,
      }}
    >
      <Button
        component={Link}
        to={`/designs/${design.id}/${standing?.shell?.figures ? 'shell' : 'bay'}`}
        variant="outlined"
        sx={{ minWidth: 200, justifyContent: 'space-between' }}
      >
        {design.name}
        <span style={{ color: inks.quiet, fontWeight: 450, marginLeft: 8 }}>r{design.revision}</span>
      </Button>
      <Box sx={{ minWidth: 220 }}>
        {problem ??
          (figures
            ? `${units.volumeUnitText(figures.rated_l)} rated${target ? `, ${units.volumeUnitText(target)} asked for` : ''}`
            : standing
              ? 'no shape yet'
              : '')}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}>
        {stations().map((station) => (
          <StationChip
            key={station.name}
            station={station}
            designId={design.id}
            judged={standing?.stations.find((item) => item.station === station.name)?.state}
          />
        ))}
      </Box>
    </Box>
  )
}

const unmarked = (): StationMark | null => null

/** A station's mark, and the way to it: the core's, or its own where the core judges nothing there. */
function StationChip({
  station,
  designId,
  judged,
}: {
  station: Station
  designId: number
  judged: StationMark | undefined
}) {
  const { inks } = useTheme()
  const useMark = station.useMark ?? unmarked
  const state = useMark(designId) ?? judged
  if (!state) return null
  return (
    <Box
      component={Link}
      to={`/designs/${designId}/${station.name}`}
      aria-label={`${station.title}: ${state}`}
      title={`${station.title}: ${state}`}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 0.5,
        minHeight: 32,
        px: 0.75,
        fontSize: 13,
        color: 'text.primary',
        textDecoration: 'none',
        '&:hover': { background: inks.paper },
      }}
    >
      <StationMarkIcon state={state} /> {station.title}
    </Box>
  )
}

/** Stops and cautions of all designs, each with the way to it. */
function Attention({ designs, standing }: { designs: Design[]; standing: (Standing | undefined)[] }) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const rows = designs.flatMap((design, place) =>
    (standing[place]?.findings ?? [])
      .filter((finding) => finding.severity !== 'note')
      .map((finding) => ({ design, finding })),
  )
  rows.sort((a, b) => Number(b.finding.severity === 'stop') - Number(a.finding.severity === 'stop'))
  if (standing.some((one) => !one) && designs.length) return <Typography color="textSecondary">Judging</Typography>
  if (!rows.length) return <Typography color="textSecondary">Nothing: no stop and no caution in any design.</Typography>
  return rows.map(({ design, finding }) => (
    <Box
      key={`${design.id} ${finding.key}`}
      component={Link}
      to={`/designs/${design.id}/${finding.station}`}
      sx={{
        display: 'flex',
        gap: 1.25,
        alignItems: 'center',
        minHeight: 36,
        color: 'text.primary',
        textDecoration: 'none',
        borderTop: `1px solid ${inks.line}`,
        '&:hover': { background: inks.paper },
      }}
    >
      <SeverityMark severity={finding.severity} />
      <Box sx={{ flex: 1 }}>{say(finding.title)}</Box>
      <Box sx={{ fontSize: 13, color: 'text.secondary' }}>
        {design.name}, {stationOf(finding.station)?.title}
      </Box>
    </Box>
  ))
}

/** What can be downloaded of a design, by station. */
function PapersOf({ design }: { design: Design }) {
  const listed = useQuery(papersQuery(design.id, design.revision))
  const papers = listed.data ?? []
  return (
    <Box sx={{ mb: 1.5 }}>
      <Typography variant="h3">{design.name}</Typography>
      {[...new Set(papers.map((paper) => paper.station))].map((station) => (
        <Box key={station} sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1.5, alignItems: 'baseline' }}>
          <Box sx={{ fontSize: 13, color: 'text.secondary', minWidth: 52 }}>{stationOf(station)?.title}</Box>
          {papers
            .filter((paper) => paper.station === station)
            .map((paper) => (
              <a
                key={paper.name}
                href={`/api/designs/${design.id}/files/${paper.name}`}
                download
                style={{ padding: '5px 0', color: 'inherit' }}
              >
                {paper.title}
              </a>
            ))}
        </Box>
      ))}
    </Box>
  )
}

const day = (when: string) => new Date(when).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })

/** The saves of all designs, those of one sitting together. */
function Done({ number }: { number: number }) {
  const { inks } = useTheme()
  const timeline = useQuery(timelineQuery(number))
  return (
    <>
      {timeline.data?.entries.map((entry) => (
        <Box key={`${entry.design_id} ${entry.last}`} data-entry sx={{ borderTop: `1px solid ${inks.line}`, py: 0.75 }}>
          <Box sx={{ fontSize: 13, color: 'text.secondary' }}>
            {day(entry.ended)}, {entry.author || 'the workshop'}
          </Box>
          {entry.design}:{' '}
          {entry.first === entry.last ? `revision ${entry.last}` : `revisions ${entry.first} to ${entry.last}`}
          {entry.notes.length > 0 && `, ${entry.notes.join(', ')}`}
        </Box>
      ))}
      {timeline.data && !timeline.data.is_whole && (
        <Typography color="textSecondary">What came before is in each design’s Revisions.</Typography>
      )}
    </>
  )
}
