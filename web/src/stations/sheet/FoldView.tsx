import { OrbitControls } from '@react-three/drei'
import { Canvas, useThree } from '@react-three/fiber'
import { Box, Button, Slider, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useEffect, useMemo, useRef, useState } from 'react'
import * as THREE from 'three'
import { boxRound, folded, type FoldPiece } from '../../drawing/fold'
import { drawnBy, M } from '../../drawing/three'
import { useWork } from '../../work/store'
import { isOf } from './chosen'

const WHOLE_MS = 2600
/** How far outside a flat stands before it is folded, as a share of the tank. */
const OUTSIDE = 0.45

interface Props {
  chosen: string | null
  onChoose: (part: string) => void
}

/** All parts folding up into the tank, the chosen one lit. */
export default function FoldView({ chosen, onChoose }: Props) {
  const pieces = useWork((work) => work.evaluation?.sheet?.folding)
  const { inks } = useTheme()
  const [share, setShare] = useState(1)
  const play = usePlay(setShare)
  if (!pieces?.length || drawnBy() === 'none') return null
  return (
    <Box
      component="section"
      aria-label="Folding up"
      sx={{ display: 'flex', flexDirection: 'column', minHeight: 0, height: '100%', background: inks.sheet }}
    >
      <Box sx={{ flex: 1, minHeight: 0 }} data-solid="drawn">
        <Canvas
          flat
          frameloop="demand"
          gl={{ antialias: drawnBy() === 'graphics card' }}
          camera={{ fov: 32, near: 0.01, far: 200, up: [0, 0, 1], position: [2.4, -3, 1.9] }}
        >
          <Scene pieces={pieces} share={share} chosen={chosen} onChoose={onChoose} />
        </Canvas>
      </Box>
      <Box sx={{ px: 2, pb: 1, display: 'flex', alignItems: 'center', gap: 2 }}>
        <Button size="small" onClick={play} sx={{ minWidth: 60, minHeight: 44 }}>
          Fold up
        </Button>
        <Slider
          size="small"
          aria-label="How far it is folded"
          value={Math.round(share * 100)}
          valueLabelDisplay="auto"
          valueLabelFormat={(value) => `${value} %`}
          onChange={(_, value) => setShare(Number(value) / 100)}
        />
      </Box>
      <Typography sx={{ fontSize: 12, color: inks.quiet, px: 2, pb: 1 }}>
        Drag to turn. Press a part to see it flat.
      </Typography>
    </Box>
  )
}

/** From flat to folded; at once for those who don't want things to move. */
function usePlay(setShare: (share: number) => void) {
  const frame = useRef(0)
  useEffect(() => () => cancelAnimationFrame(frame.current), [])
  return () => {
    cancelAnimationFrame(frame.current)
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches
    const began = performance.now()
    const step = () => {
      const done = still ? 1 : Math.min(1, (performance.now() - began) / WHOLE_MS)
      setShare(done)
      if (done < 1) frame.current = requestAnimationFrame(step)
    }
    step()
  }
}

function Scene({ pieces, share, chosen, onChoose }: Props & { pieces: FoldPiece[]; share: number }) {
  const { camera, invalidate, size } = useThree()
  const { inks } = useTheme()
  const about = useMemo(() => boxRound(pieces), [pieces])
  const [centre, reach] = useMemo(() => {
    if (!about) return [new THREE.Vector3(), 1] as const
    const [low, high] = [new THREE.Vector3(...about.low), new THREE.Vector3(...about.high)]
    return [
      low
        .clone()
        .add(high)
        .multiplyScalar(M / 2),
      low.distanceTo(high) * M,
    ] as const
  }, [about])
  const key = `${centre.x.toFixed(2)} ${centre.y.toFixed(2)} ${centre.z.toFixed(2)} ${reach.toFixed(2)} ${(size.width / size.height).toFixed(1)}`
  useEffect(() => {
    const wide = Math.min(1, size.width / size.height)
    camera.position
      .copy(centre)
      .add(new THREE.Vector3(0.62, -0.8, 0.5).normalize().multiplyScalar((reach * 2.05) / wide))
    camera.lookAt(centre)
    invalidate()
    // The camera goes back only when the tank has grown or moved, or the picture changed shape.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key])
  useEffect(() => invalidate(), [pieces, share, chosen, inks, invalidate])
  const outside = (1 - share) * OUTSIDE * (reach / M)
  return (
    <>
      <ambientLight intensity={1.6} />
      <directionalLight position={[3, -5, 6]} intensity={1.8} />
      {pieces.map((piece) => (
        <Piece
          key={`${piece.part} ${piece.piece}`}
          piece={piece}
          share={share}
          outside={outside}
          lit={chosen !== null && isOf(piece, chosen)}
          quiet={chosen !== null && !isOf(piece, chosen)}
          onChoose={onChoose}
        />
      ))}
      <OrbitControls makeDefault target={centre} enableDamping={false} />
    </>
  )
}

interface PieceProps {
  piece: FoldPiece
  share: number
  outside: number
  lit: boolean
  quiet: boolean
  onChoose: (part: string) => void
}

function Piece({ piece, share, outside, lit, quiet, onChoose }: PieceProps) {
  const { inks } = useTheme()
  const shapes = useMemo(() => piece.panels.map((panel) => geometryOf(panel.rings as number[][][][])), [piece])
  const places = folded(piece, share, outside)
  const colour = lit ? inks.hand : inks.metal
  return (
    <group scale={M}>
      {shapes.map(({ faces, edges }, n) => {
        const matrix = new THREE.Matrix4().set(...(places[n] as Parameters<THREE.Matrix4['set']>))
        return (
          <group key={n} matrixAutoUpdate={false} matrix={matrix}>
            <mesh
              geometry={faces}
              renderOrder={lit ? 1 : 2}
              onClick={(event) => {
                if (event.delta > 3) return
                event.stopPropagation()
                onChoose(piece.part)
              }}
            >
              <meshLambertMaterial
                color={colour}
                transparent
                opacity={lit ? 0.95 : quiet ? 0.12 : 0.55}
                side={THREE.DoubleSide}
                depthWrite={lit}
              />
            </mesh>
            <lineSegments geometry={edges}>
              <lineBasicMaterial color={colour} transparent opacity={quiet ? 0.5 : 1} />
            </lineSegments>
          </group>
        )
      })}
    </group>
  )
}

/** A panel's shapes, an outline and its holes each, filled and as lines. */
function geometryOf(rings: number[][][][]) {
  const path = (ring: number[][]) => ring.map(([u, v]) => new THREE.Vector2(u, v))
  const shapes = rings.map(([outline, ...holes]) => {
    const shape = new THREE.Shape(path(outline ?? []))
    shape.holes = holes.map((hole) => new THREE.Path(path(hole)))
    return shape
  })
  const edges = rings.flat().flatMap((ring) =>
    ring.flatMap((spot, n) => {
      const next = ring[(n + 1) % ring.length] ?? spot
      return [spot[0] ?? 0, spot[1] ?? 0, 0, next[0] ?? 0, next[1] ?? 0, 0]
    }),
  )
  const lines = new THREE.BufferGeometry()
  lines.setAttribute('position', new THREE.Float32BufferAttribute(edges, 3))
  return { faces: new THREE.ShapeGeometry(shapes), edges: lines }
}
