import { Box, Button, Dialog, DialogActions, DialogContent } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { type PointerEvent, useState } from 'react'
import type { Build, Picture } from '../api/model'
import { useUnits } from '../units/useUnits'
import { record } from './build'
import { Photo } from './Photo'
import { moment } from './time'

type Stroke = [number, number][]

const MOST = { strokes: 40, spots: 400 }
/** Spots nearer to each other than this share of the picture are one. */
const NEAR = 0.004
const DIGITS = 1e4

interface Props {
  build: Build
  picture: Picture
  mayWrite: boolean
  onClose: () => void
  onPin?: (id: string) => void
}

/** A photo, what was said of it; drawn on, pinned on the tank. */
export function LargePhoto({ build, picture, mayWrite, onClose, onPin }: Props) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const [drawn, setDrawn] = useState<Stroke[] | null>(null)
  const operation = build.state.operations.find((one) => one.operation.id === picture.of.subject)
  const shown = drawn ? { ...picture, of: { ...picture.of, strokes: drawn } } : picture
  return (
    <Dialog open onClose={onClose} maxWidth={false} aria-label="Photo">
      <DialogContent sx={{ background: inks.sheet }}>
        <Sketch drawing={drawn} onDraw={setDrawn}>
          <Photo job={build.job_number} picture={shown as Picture} />
        </Sketch>
        <Box sx={{ mt: 1 }}>{operation ? say(operation.operation.title) : picture.of.subject}</Box>
        <Box sx={{ fontSize: 14, color: 'text.secondary' }}>
          {picture.of.author}
          {picture.of.happened && `, ${moment(picture.of.happened)}`}
          {picture.of.note && `: ${picture.of.note}`}
        </Box>
      </DialogContent>
      <DialogActions>
        {mayWrite && drawn === null && (
          <>
            <Button onClick={() => setDrawn(picture.of.strokes as Stroke[])}>Draw on it</Button>
            {onPin && <Button onClick={() => onPin(picture.id)}>Pin on the tank</Button>}
          </>
        )}
        {drawn && (
          <>
            <Button onClick={() => setDrawn(drawn.slice(0, -1))} disabled={!drawn.length}>
              Undo line
            </Button>
            <Button
              variant="contained"
              onClick={() => {
                void record(build, { kind: 'drawn', photo: picture.id, strokes: drawn })
                setDrawn(null)
              }}
            >
              Keep drawing
            </Button>
          </>
        )}
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  )
}

interface SketchProps {
  /** Lines so far; empty while nothing is drawn. */
  drawing: Stroke[] | null
  onDraw: (strokes: Stroke[]) => void
  children: React.ReactNode
}

/** Takes lines from finger, pen or mouse, in shares of the picture. */
function Sketch({ drawing, onDraw, children }: SketchProps) {
  const [down, setDown] = useState(false)
  const spotOf = (event: PointerEvent): [number, number] => {
    const box = (event.currentTarget.querySelector('svg') ?? event.currentTarget).getBoundingClientRect()
    const share = (value: number) => Math.round(Math.min(1, Math.max(0, value)) * DIGITS) / DIGITS
    return [share((event.clientX - box.left) / box.width), share((event.clientY - box.top) / box.height)]
  }
  const begin = (event: PointerEvent) => {
    if (!drawing || drawing.length >= MOST.strokes) return
    event.currentTarget.setPointerCapture(event.pointerId)
    setDown(true)
    onDraw([...drawing, [spotOf(event)]])
  }
  const go = (event: PointerEvent) => {
    const last = drawing?.at(-1)
    if (!drawing || !last || !down || last.length >= MOST.spots) return
    const spot = spotOf(event)
    const before = last.at(-1) ?? spot
    if (Math.hypot(spot[0] - before[0], spot[1] - before[1]) < NEAR) return
    onDraw([...drawing.slice(0, -1), [...last, spot]])
  }
  return (
    <Box
      data-sketch={drawing ? 'open' : 'shut'}
      onPointerDown={begin}
      onPointerMove={go}
      onPointerUp={() => setDown(false)}
      sx={drawing ? { cursor: 'crosshair', touchAction: 'none' } : {}}
    >
      {children}
    </Box>
  )
}
