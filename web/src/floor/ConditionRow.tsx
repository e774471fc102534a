import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build, Condition, ConditionState } from '../api/model'
import { useUnits } from '../units/useUnits'
import { record } from './build'
import { Choices, CountField, LengthField, NumberField } from './fields'
import { PhotoButton } from './PhotoButton'

interface Props {
  build: Build
  gate: string
  state: ConditionState
  mayWrite: boolean
}

const CAUGHT = ['swarf', 'weld spatter', 'dust', 'dirty fluid']
/** What comes with bought parts, beside the kinds that a gate names. */
const CAPS = 'transport caps'
const WAYS = ['tape', 'stick', 'gauge', 'template']

/** One thing that a gate asks for, whether it is so, and how it is put on record. */
export function ConditionRow({ build, gate, state, mayWrite }: Props) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const met = !state.lacks
  return (
    <Box
      data-condition={state.condition.kind}
      data-met={met}
      sx={{ borderTop: `1px solid ${inks.line}`, py: 1, display: 'flex', flexDirection: 'column', gap: 1 }}
    >
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
        <Box component="span" aria-hidden sx={{ color: met ? inks.good : inks.quiet, fontWeight: 700, minWidth: 18 }}>
          {met ? '✓' : '·'}
        </Box>
        <Box sx={{ flex: 1 }}>
          {titleOf(state.condition, say)}
          <Box sx={{ fontSize: 14, color: met ? inks.good : inks.stop }}>
            {state.lacks ? say(state.lacks) : 'met'}
            {readOf(state)}
          </Box>
        </Box>
      </Box>
      {mayWrite && <Recording build={build} gate={gate} condition={state.condition} met={met} />}
    </Box>
  )
}

/** The reading that it goes by, as it stood on the instrument. */
function readOf({ condition, reading }: ConditionState): string {
  if (reading === null) return ''
  if (condition.kind === 'free of vapour') return `: ${percent(reading)} read`
  return condition.kind === 'reading at most' ? `: ${reading} ${condition.unit} read` : ''
}

function titleOf(condition: Condition, say: ReturnType<typeof useUnits>['say']): string {
  switch (condition.kind) {
    case 'looked':
      return say(condition.words) + (condition.photo ? ', with a photo' : '')
    case 'flushed clean':
      return 'Flushed or wiped out until nothing comes'
    case 'counts match':
      return `As many out as in: ${condition.kinds.join(', ') || 'all that was counted'}`
    case 'measurements agree':
      return say({
        text: 'Two measurements by two ways, drawn {planned_sheet}, within {within_sheet}',
        values: { planned_sheet: condition.planned_mm, within_sheet: condition.within_mm },
      })
    case 'reading at most':
      return [
        `${condition.unit ? condition.subject : 'Reading'}: ${condition.most} ${condition.unit} or less`,
        condition.oldest_min === null ? '' : `no older than ${condition.oldest_min} min`,
      ]
        .filter(Boolean)
        .join(', ')
    case 'all here':
      return `Counted in: ${condition.items.map((item) => item[1]).join('; ')}`
    case 'all done':
      return 'The work before it'
    case 'not shut':
      return 'The gate before it'
    case 'free of vapour':
      return `It never held fuel, or a reading of ${percent(condition.most)} of the lower explosive limit or less, no older than ${condition.oldest_min} min`
    case 'nothing open':
      return `Nothing open in the ledger that has to be closed before ${condition.before}`
    case 'poured in':
      return 'Poured, measured, and the gauge read'
    case 'line holds':
      return `${condition.name} holds its working pressure`
    case 'joints dry':
      return `All ${condition.joints.length} joints dry${condition.after ? ' when looked at again' : ' and marked'}`
    case 'proved':
      return `Leak test passed: ${condition.cells.join(', ')}`
  }
}

function Recording({
  build,
  gate,
  condition,
  met,
}: {
  build: Build
  gate: string
  condition: Condition
  met: boolean
}) {
  switch (condition.kind) {
    case 'looked':
      return <Look build={build} gate={gate} condition={condition} met={met} />
    case 'flushed clean':
      return <Round build={build} subject={condition.subject} />
    case 'measurements agree':
      return (
        <LengthField
          label="Measured"
          ways={WAYS}
          onRecord={(value_mm, by_way) =>
            record(build, { kind: 'measured', subject: condition.subject, value_mm, by_way })
          }
        />
      )
    case 'counts match':
      return (condition.kinds.length ? condition.kinds : [CAPS]).map((kind) => (
        <CountField
          key={kind}
          label={kind}
          onRecord={(way, value) => record(build, { kind: 'count', subject: kind, way, value })}
        />
      ))
    case 'free of vapour':
      return <Vapour build={build} gate={gate} condition={condition} met={met} />
    case 'reading at most':
      return (
        <NumberField
          label={condition.unit ? `Reading, ${condition.unit}` : 'Reading'}
          onRecord={(value) => record(build, { kind: 'reading', subject: condition.subject, value })}
        />
      )
    default:
      return null
  }
}

const percent = (share: number) => `${Math.round(100 * share)} %`

interface VapourProps {
  build: Build
  gate: string
  condition: Extract<Condition, { kind: 'free of vapour' }>
  met: boolean
}

/** A word that it never held fuel, or a reading in per cent of the lower explosive limit. */
function Vapour({ build, gate, condition, met }: VapourProps) {
  return (
    <>
      {!met && (
        <Button
          variant="contained"
          sx={{ minHeight: 56 }}
          onClick={() => void record(build, { kind: 'checked', subject: gate, check: condition.check, passed: true })}
        >
          New: it never held fuel
        </Button>
      )}
      <NumberField
        label="Reading, % of the limit"
        onRecord={(value) => record(build, { kind: 'reading', subject: condition.subject, value: value / 100 })}
      />
    </>
  )
}

type LookProps = { build: Build; gate: string; condition: Extract<Condition, { kind: 'looked' }>; met: boolean }

function Look({ build, gate, condition, met }: LookProps) {
  const seen = (passed: boolean, photos: string[] = []) =>
    record(build, { kind: 'checked', subject: gate, check: condition.check, passed, photos })
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
      {condition.photo ? (
        <PhotoButton
          job={build.job_number}
          label={met ? 'Another photo' : 'Photo: it is so'}
          large
          onTaken={(id) => void seen(true, [id])}
        />
      ) : (
        !met && (
          <Button variant="contained" sx={{ minHeight: 56 }} onClick={() => void seen(true)}>
            It is so
          </Button>
        )
      )}
      <Button variant="outlined" sx={{ minHeight: 56 }} onClick={() => void seen(false)}>
        It is not so
      </Button>
    </Box>
  )
}

function Round({ build, subject }: { build: Build; subject: string }) {
  const [dirty, setDirty] = useState(false)
  const flushed = (caught: string, clean: boolean) => {
    setDirty(false)
    void record(build, { kind: 'flushed', subject, caught, clean })
  }
  if (dirty) return <Choices label="What came out" choices={CAUGHT} onChoose={(caught) => flushed(caught, false)} />
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
      <Button variant="contained" sx={{ minHeight: 56 }} onClick={() => flushed('nothing', true)}>
        Nothing came out
      </Button>
      <Button variant="outlined" sx={{ minHeight: 56 }} onClick={() => setDirty(true)}>
        Something came out
      </Button>
    </Box>
  )
}
