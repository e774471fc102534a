import { Alert, Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, asked } from '../../api/client'
import type { Practice } from '../../api/model'
import { Choice, QuantityField } from '../../fields/fields'
import { DecayPlot } from '../../floor/proof/DecayPlot'
import { PlotKey } from '../../floor/proof/PlotKey'
import { type Level, LEVELS } from '../../floor/proof/Simulation'
import { VerdictFigures } from '../../floor/proof/Verdict'
import { useUnits } from '../../units/useUnits'

const LOOK_MS = 1000

/** A tank nobody knows the leak of: watch its gauge, say whether it leaks and how much, see what misled. */
export function PracticeTest({ designId, cell }: { designId: number; cell: string }) {
  const queries = useQueryClient()
  const [id, setId] = useState<number | null>(null)
  const [level, setLevel] = useState<Level>('changing air')
  const query = useQuery({
    queryKey: ['practice', id],
    enabled: id !== null,
    refetchInterval: (found) => (found.state.data?.lesson ? false : LOOK_MS),
    queryFn: () =>
      asked(api.GET('/api/practice/leak-tests/{practice_id}', { params: { path: { practice_id: id ?? 0 } } })),
  })
  const begin = useMutation({
    mutationFn: () => asked(api.POST('/api/practice/leak-tests', { body: { level, design: designId, cell } })),
    onSuccess: (made) => {
      queries.setQueryData(['practice', made.id], made)
      setId(made.id)
    },
  })
  const item = query.data as Practice | undefined
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.5 }} data-practice={item?.lesson ? 'answered' : 'open'}>
      <Typography variant="h2">Practise on a simulated tank</Typography>
      <Typography variant="body2">
        A tank as large as this cell, with a leak or without. Two of its minutes pass in a second. Nothing of it goes
        into the log.
      </Typography>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'start' }}>
        <Box sx={{ width: 200 }}>
          <Choice label="Surroundings" value={level} options={LEVELS} onChange={setLevel} />
        </Box>
        <Button
          variant={item && !item.lesson ? 'outlined' : 'contained'}
          sx={{ minHeight: 44 }}
          onClick={() => begin.mutate()}
        >
          {item ? 'Begin another' : 'Shut the tank'}
        </Button>
      </Box>
      {begin.error && <Alert severity="error">{begin.error.message}</Alert>}
      {item && <Shown key={item.id} item={item} />}
    </Box>
  )
}

function Shown({ item }: { item: Practice }) {
  const units = useUnits()
  return (
    <>
      <Box sx={{ fontVariantNumeric: 'tabular-nums' }} aria-live="polite">
        {units.volumeUnitText(item.volume_l)} of air at {units.quantity('finekpa', item.pressure_kpa)}, after{' '}
        {units.quantity('min', item.minutes)}
        {item.latest && (
          <>
            {' '}
            the gauge shows <b>{units.quantity('finekpa', item.latest.gauge_kpa)}</b> at{' '}
            {units.quantity('c', item.latest.temperature_c, 1)}
          </>
        )}
      </Box>
      {item.result.count > 1 && (
        <>
          <DecayPlot result={item.result} height={220} />
          <PlotKey />
        </>
      )}
      {item.lesson ? <Taught item={item} /> : <Guess item={item} />}
    </>
  )
}

function Guess({ item }: { item: Practice }) {
  const units = useUnits()
  const queries = useQueryClient()
  const [leak, setLeak] = useState<number | null>(null)
  const answer = useMutation({
    mutationFn: (leaks: boolean) =>
      asked(
        api.POST('/api/practice/leak-tests/{practice_id}/answer', {
          params: { path: { practice_id: item.id } },
          body: { leaks, leak_sccm: leak ?? 0 },
        }),
      ),
    onSuccess: (found) => queries.setQueryData(['practice', item.id], found),
  })
  return (
    <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'start' }}>
      <Box sx={{ width: 190 }}>
        <QuantityField of="sccm" label="Its leak, your guess" value={leak} onCommit={setLeak} />
      </Box>
      <Button variant="contained" sx={{ minHeight: 44 }} disabled={leak === null} onClick={() => answer.mutate(false)}>
        It is tight
      </Button>
      <Button
        variant="contained"
        color="error"
        sx={{ minHeight: 44 }}
        disabled={leak === null}
        onClick={() => answer.mutate(true)}
      >
        It leaks
      </Button>
      <Box sx={{ width: '100%', fontSize: 14, color: 'text.secondary' }}>
        More than {units.quantity('sccm', item.limit_sccm)} is a leak. With this gauge it takes{' '}
        {units.quantity('min', Math.ceil(item.least_min))} at least.
      </Box>
      {answer.error && <Alert severity="error">{answer.error.message}</Alert>}
    </Box>
  )
}

function Taught({ item }: { item: Practice }) {
  const { inks } = useTheme()
  const units = useUnits()
  const { lesson } = item
  if (!lesson) return null
  return (
    <Box data-lesson sx={{ borderLeft: `5px solid ${lesson.was_right ? inks.good : inks.stop}`, pl: 1.5 }}>
      <Box sx={{ fontSize: 20, fontWeight: 700, color: lesson.was_right ? inks.good : inks.stop }}>
        {lesson.was_right ? 'Right' : 'Wrong'}: it {lesson.leaks ? 'leaks' : 'is tight'},{' '}
        {units.quantity('sccm', lesson.leak_sccm)}
      </Box>
      <Box>
        Your guess was {units.quantity('sccm', Math.abs(lesson.off_sccm))} {lesson.off_sccm > 0 ? 'high' : 'low'}
        {lesson.was_near ? ': near enough.' : '.'}
      </Box>
      <Box component="ul" sx={{ m: 0, pl: 2.5 }} aria-label="What misled">
        {lesson.told.map((line, n) => (
          <li key={n}>{units.say(line)}</li>
        ))}
      </Box>
      <VerdictFigures result={item.result} limit={item.limit_sccm} />
    </Box>
  )
}
