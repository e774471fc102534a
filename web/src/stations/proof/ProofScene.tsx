import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useCallback, useMemo } from 'react'
import type { Build, CellPlan, CellProof, ProofRound } from '../../api/model'
import { type Bulge, FoldScene, type Place, type Stroke } from '../../drawing/FoldScene'
import { drawnBy } from '../../drawing/three'
import { nearestAlong, placeAlong, seamsOf } from '../../floor/proof/proof'
import { useWalked } from '../../floor/proof/useRounds'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { showAlong, showSeam, useProofView } from './view'

interface Props {
  build: Build
  proof: CellProof
  cell: CellPlan
  round: ProofRound | undefined
}

const NOTHING: never[] = []
const FOLDED = () => 1
/** A bow is drawn so large that it is seen: up to a fifth of the panel. */
const SEEN_SHARE = 1 / 5
const STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 500]
const ROUND: Pick<ProofRound, 'walked' | 'leaks'> = { walked: [], leaks: [] }

/** The tank under test: seams lit as they are walked, leaks pinned, the weakest panel bowed to scale. */
export default function ProofScene({ build, cell, round }: Props) {
  const { inks } = useTheme()
  const units = useUnits()
  const pieces = useWork((work) => work.evaluation?.sheet?.folding)
  const { seam: at, along } = useProofView()
  const seams = useMemo(() => seamsOf(build, cell.cell), [build, cell.cell])
  const look = useCallback(() => ({ colour: inks.metal, opacity: 0.16, edges: 0.35, solid: false }), [inks])
  const { walked, leaks } = useWalked(build, (round ?? { ...ROUND, begun: { id: '' } }) as ProofRound)
  const strokes = useMemo<Stroke[]>(
    () =>
      seams.map((seam) => ({
        id: seam.id,
        lines: seam.lines.map((line) => line.map(({ x, y, z }): Place => [x, y, z])),
        colour: seam.id === at ? inks.hand : walked.has(seam.id) ? inks.good : inks.ink,
        thick: seam.id === at ? 2.4 : 1.2,
      })),
    [seams, at, walked, inks],
  )
  const corner = build.corner
  const pins = useMemo(() => {
    const found = leaks.map((leak) => ({
      id: leak.id,
      colour: inks.stop,
      place: [leak.x_mm + (corner?.x ?? 0), leak.y_mm + (corner?.y ?? 0), leak.z_mm + (corner?.z ?? 0)] as Place,
    }))
    const seam = seams.find((one) => one.id === at)
    if (!seam) return found
    const { x, y, z } = placeAlong(seam, along)
    const spots = seam.spots.map(({ place }, n) => ({
      id: `spot ${n}`,
      colour: inks.caution,
      place: [place.x, place.y, place.z] as Place,
      small: true,
    }))
    return [...found, ...spots, { id: 'finger', colour: inks.hand, place: [x, y, z] as Place }]
  }, [leaks, seams, at, along, corner, inks])
  const weakest = cell.panels[0]
  const times = useMemo(() => {
    const wanted = weakest ? SEEN_SHARE * Math.min(weakest.first_mm, weakest.second_mm) : 1
    return STEPS.findLast((step) => step * cell.bow_mm <= wanted) ?? 1
  }, [weakest, cell.bow_mm])
  const bulges = useMemo<Bulge[]>(() => {
    if (!weakest?.corners.length) return []
    return [
      {
        corners: weakest.corners.map(({ x, y, z }): Place => [x, y, z]),
        out: [weakest.out.x, weakest.out.y, weakest.out.z],
        bow: cell.bow_mm * times,
        round: weakest.round,
        colour: inks.caution,
      },
    ]
  }, [weakest, cell.bow_mm, times, inks])
  const press = ([x, y, z]: Place) => {
    const near = seams
      .map((seam) => ({ seam, ...nearestAlong(seam, { x, y, z }) }))
      .sort((a, b) => a.offMm - b.offMm)[0]
    if (!near) return
    showSeam(near.seam.id)
    showAlong(near.atMm)
  }
  return (
    <Box
      component="section"
      aria-label="Tank under test"
      sx={{
        flex: '1 1 48%',
        minWidth: 0,
        display: 'flex',
        flexDirection: 'column',
        background: inks.sheet,
        borderLeft: `1px solid ${inks.line}`,
      }}
      data-solid="drawn"
    >
      <Box sx={{ flex: 1, minHeight: 0 }}>
        {pieces?.length && drawnBy() !== 'none' ? (
          <FoldScene
            pieces={pieces}
            share={FOLDED}
            look={look}
            strokes={strokes}
            bulges={bulges}
            pins={pins.length ? pins : NOTHING}
            onSpot={press}
          />
        ) : null}
      </Box>
      {weakest && (
        <Box sx={{ p: 1.5, borderTop: `1px solid ${inks.line}`, fontSize: 14 }} data-weakest={weakest.name}>
          <b style={{ color: inks.caution }}>Weakest: {weakest.name}</b>, {units.lengthUnitText(weakest.first_mm)} ×{' '}
          {units.lengthUnitText(weakest.second_mm)}, {weakest.held}: bears {units.quantity('finekpa', weakest.safe_kpa)}
          , bows {units.cut(cell.bow_mm)} {units.inches ? '' : 'mm'} at {units.quantity('finekpa', cell.pressure_kpa)}
          {weakest.corners.length > 0 && `, drawn ×${times}`}
        </Box>
      )}
    </Box>
  )
}
