import { Box, Button, CircularProgress, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { Link } from 'react-router'
import type { Change, Evaluation, Finding, Remedy } from '../api/model'
import { stationOf } from '../stations/registry'
import { useUnits } from '../units/useUnits'
import { tryRemedy } from './evaluate'
import { SeverityMark } from './Marks'
import { applyPatch, useWork } from './store'

/** What is wrong, why it matters, and what would put it right. */
export function Findings({
  designId,
  station,
  everywhere,
}: {
  designId: number
  station: string
  everywhere: boolean
}) {
  const evaluation = useWork((work) => work.evaluation)
  const all = evaluation?.findings ?? []
  const shown = everywhere ? all : all.filter((finding) => finding.station === station)
  const elsewhere = all.length - shown.length
  if (!evaluation) return null
  return (
    <Box component="section" aria-label="Findings" id="findings">
      <Typography variant="h2" sx={{ mb: 1 }}>
        {everywhere ? 'All findings' : 'Findings here'}
      </Typography>
      {shown.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          {evaluation.shell?.figures ? 'Nothing to put right.' : 'Judged once the tank has a shape.'}
        </Typography>
      )}
      {shown.length > 0 && <Search evaluation={evaluation} />}
      {shown.map((finding) => (
        <FindingCard key={finding.key} finding={finding} designId={designId} showStation={everywhere} />
      ))}
      {!everywhere && elsewhere > 0 && (
        <Typography variant="body2" color="textSecondary" sx={{ mt: 1 }}>
          {elsewhere} more at other stations.
        </Typography>
      )}
    </Box>
  )
}

/** Whether remedies are still looked for, and how many weren't tried. */
function Search({ evaluation }: { evaluation: Evaluation }) {
  const { untried = 0 } = evaluation
  if (!evaluation.tried) {
    return (
      <Typography
        variant="body2"
        color="textSecondary"
        role="status"
        data-looking
        sx={{ display: 'flex', alignItems: 'center', gap: 1, mb: 1 }}
      >
        <CircularProgress size={14} aria-hidden="true" /> Looking for remedies
      </Typography>
    )
  }
  if (untried === 0) return null
  return (
    <Typography variant="body2" color="textSecondary" data-untried sx={{ mb: 1 }}>
      {untried} more remedies would take too long to try. Settle what stands first; then they are tried.
    </Typography>
  )
}

function FindingCard({ finding, designId, showStation }: { finding: Finding; designId: number; showStation: boolean }) {
  const { inks } = useTheme()
  const { say } = useUnits()
  return (
    <Box
      component="article"
      data-finding={finding.key}
      sx={{ borderLeft: `4px solid ${inks[finding.severity]}`, background: inks.paper, p: 1.5, mb: 1.25 }}
    >
      <Box
        sx={{
          display: 'flex',
          gap: 1,
          alignItems: 'center',
          fontSize: 12,
          fontWeight: 700,
          textTransform: 'uppercase',
          letterSpacing: '.06em',
          color: inks[finding.severity],
        }}
      >
        <SeverityMark severity={finding.severity} /> {finding.severity}
        {showStation && (
          <Link
            to={`/designs/${designId}/${finding.station}`}
            style={{ marginLeft: 'auto', color: inks.quiet, fontWeight: 500 }}
          >
            {stationOf(finding.station)?.title}
          </Link>
        )}
      </Box>
      <Typography variant="h3" component="h3" sx={{ my: 0.5 }}>
        {say(finding.title)}
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {say(finding.why)}
      </Typography>
      {(finding.remedies ?? []).map((remedy, place) => (
        <RemedyRow key={place} id={`${finding.key}/${place}`} remedy={remedy} />
      ))}
    </Box>
  )
}

function RemedyRow({ id, remedy }: { id: string; remedy: Remedy }) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const price = usePrice(remedy.change ?? null)
  const trial = useWork((work) => work.trial)
  const readOnly = useWork((work) => work.readOnly)
  const stale = useWork((work) => work.evaluated !== work.design || !work.evaluation?.tried)
  const trying = trial?.key === id
  return (
    <Box data-remedy={id} sx={{ mt: 1, pt: 1, borderTop: `1px solid ${inks.line}` }}>
      <Typography variant="body2" sx={{ fontWeight: 600 }}>
        {say(remedy.label)}
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {price}
      </Typography>
      {(remedy.raises ?? []).map((title, place) => (
        <Typography key={place} variant="body2" sx={{ color: inks.caution }}>
          But then: {say(title)}
        </Typography>
      ))}
      <Box sx={{ display: 'flex', gap: 1, mt: 0.5 }}>
        <Button
          variant={trying ? 'contained' : 'outlined'}
          aria-pressed={trying}
          disabled={stale}
          onClick={() => void tryRemedy(id, remedy)}
        >
          {trying ? 'Trying' : 'Try'}
        </Button>
        <Button disabled={readOnly || stale} onClick={() => applyPatch(remedy.patch)}>
          Apply
        </Button>
      </Box>
    </Box>
  )
}

/** A change in words: what it does to litres, mass, weld, minutes and money. */
export function usePrice(change: Change | null): string {
  const units = useUnits()
  if (!change) return ''
  const signed = (amount: number, text: string) => `${amount < 0 ? '−' : '+'}${text}`
  const parts = [
    Math.abs(change.brimful_l) >= 0.005
      ? `${signed(change.brimful_l, units.volumeUnitText(Math.abs(change.brimful_l)))} brimful`
      : '',
    change.empty_kg !== null && Math.abs(change.empty_kg) >= 0.005
      ? signed(change.empty_kg, units.quantity('kg', Math.abs(change.empty_kg)))
      : '',
    Math.abs(change.weld_m) >= 0.005
      ? `${signed(change.weld_m, units.quantity('m', Math.abs(change.weld_m)))} weld`
      : '',
    change.minutes !== null && change.minutes !== undefined && Math.abs(change.minutes) >= 0.5
      ? signed(change.minutes, `${units.number(Math.abs(change.minutes), 0)} min`)
      : '',
    change.money !== null && change.money !== undefined && Math.abs(change.money) >= 0.5
      ? signed(change.money, `${units.number(Math.abs(change.money), 0)} ${change.currency}`.trim())
      : '',
  ].filter(Boolean)
  return parts.length === 0 ? 'Same litres, mass and weld; its work isn’t priced' : parts.join(', ')
}
