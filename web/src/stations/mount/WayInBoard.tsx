import { Alert, Box, Button, LinearProgress, Slider, Typography } from '@mui/material'
import { useEffect, useState } from 'react'
import type { WayIn, WaySearch } from '../../api/model'
import { LengthField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { useWaySearch } from './waySearch'
import { WayInDrawing } from './WayInDrawing'

const FRAME_MS = 60
const PLAY_MM = 3

/** Whether the tank goes in, tilted where it has to be, as a film under a slider. */
export function WayInBoard() {
  const { search, stale, start, stop } = useWaySearch()
  const [play, setPlay] = useState(PLAY_MM)
  const readOnly = useWork((work) => work.readOnly)
  const opening = useWork((work) => work.design.bay?.opening ?? null)
  const running = search?.state === 'running'
  if (!opening)
    return (
      <Typography sx={{ p: 3 }}>
        Nothing to go in through yet: give the bay its opening, at Bay. Then the way in is searched here.
      </Typography>
    )
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column', p: 2, gap: 1.5 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Box sx={{ width: 190 }}>
          <LengthField
            label="Room kept all round"
            value={play}
            path="way-in.play_mm"
            disabled={readOnly || running}
            onCommit={(mm) => mm !== null && setPlay(mm)}
          />
        </Box>
        {running ? (
          <Button variant="outlined" disabled={stop.isPending} onClick={() => stop.mutate(search)}>
            Stop
          </Button>
        ) : (
          <Button variant="contained" disabled={readOnly || start.isPending} onClick={() => start.mutate(play)}>
            {search && stale ? 'The tank has changed: search again' : 'Search the way in'}
          </Button>
        )}
        <Typography variant="body2" role="status" data-way={search?.state ?? 'none'} sx={{ flex: 1, minWidth: 240 }}>
          <Said search={search} stale={stale} />
        </Typography>
      </Box>
      {running && (
        <LinearProgress variant="determinate" value={100 * search.share} aria-label="How far the search is" />
      )}
      {(start.error ?? stop.error) && <Alert severity="error">{(start.error ?? stop.error)?.message}</Alert>}
      {search?.found && !running && <Film key={search.id} way={search.found} />}
    </Box>
  )
}

/** The answer in a sentence. */
function Said({ search, stale }: { search: WaySearch | null; stale: boolean }) {
  const units = useUnits()
  const strapped = useWork((work) => work.design.mount.straps.length > 0)
  if (!search)
    return 'Looks for a path from outside to where the tank stands: shifted every way, tilted about one axis.'
  if (search.state === 'running') return search.share > 0 ? 'Searching.' : 'Waiting for a worker.'
  if (search.state === 'cancelled') return 'Stopped before it was done.'
  if (search.problem) return search.problem
  const way = search.found
  if (!way) return ''
  const before = stale ? 'Before the last change: ' : ''
  const pair = way.moving && way.fixed ? `${way.moving} and ${way.fixed}` : ''
  const kept = units.lengthUnitText(way.play_mm)
  if (!way.passes)
    return `${before}It doesn’t go in with ${kept} all round. ${pair ? `${pair} lack` : 'It lacks'} ${units.lengthUnitText(-way.room_mm)}.`
  const tilt = way.most_deg < 0.5 ? 'straight' : `tilted up to ${way.most_deg.toFixed(0)}° about ${way.tilts_about}`
  const off = way.off.length ? ` with ${listed(way.off)} off` : ' with everything on'
  const straps = strapped ? ' The straps are off while it goes in.' : ''
  const near = pair ? ` Nearest: ${pair}, ${units.lengthUnitText(way.room_mm + way.play_mm)} apart.` : ''
  return `${before}It goes in ${tilt},${off}.${straps}${near}`
}

const listed = (names: string[]) => [names.slice(0, -1).join(', '), names.at(-1)].filter(Boolean).join(' and ')

/** The frames from outside to where it stands, under a slider. */
function Film({ way }: { way: WayIn }) {
  const last = way.frames.length - 1
  const [at, setAt] = useState(last - way.tightest)
  const [plays, setPlays] = useState(false)
  useEffect(() => {
    if (!plays) return
    const timer = setInterval(() => setAt((now) => Math.min(last, now + 1)), FRAME_MS)
    return () => clearInterval(timer)
  }, [plays, last])
  if (last < 0) return null
  const moves = plays && at < last
  const frame = way.frames[last - at]
  return (
    <>
      <WayInDrawing way={way} frame={frame} tightest={last - at === way.tightest} />
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', px: 1 }}>
        <Button
          variant="outlined"
          onClick={() => {
            if (!moves && at >= last) setAt(0)
            setPlays(!moves)
          }}
        >
          {moves ? 'Pause' : 'Play'}
        </Button>
        <Button onClick={() => setAt(last - way.tightest)}>Tightest place</Button>
        <Slider
          aria-label="Moment of the way in"
          value={at}
          min={0}
          max={last}
          getAriaValueText={(value) => `step ${value + 1} of ${last + 1}`}
          onChange={(_, value) => {
            setPlays(false)
            setAt(value as number)
          }}
        />
        <Typography variant="body2" sx={{ minWidth: 130, textAlign: 'right' }}>
          {frame ? `${Math.abs(frame.angle_deg).toFixed(0)}°, step ${at + 1} of ${last + 1}` : ''}
        </Typography>
      </Box>
    </>
  )
}
