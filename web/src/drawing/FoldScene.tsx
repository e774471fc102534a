import { OrbitControls } from '@react-three/drei'
import { Canvas, useThree } from '@react-three/fiber'
import { useTheme } from '@mui/material/styles'
import { useEffect, useMemo } from 'react'
import * as THREE from 'three'
import { boxRound, folded, type FoldPiece } from './fold'
import { drawnBy, M } from './three'

/** How far outside a flat stands before it is folded, as a share of the tank. */
const OUTSIDE = 0.45
/** How large a pin is, as a share of the tank. */
const PIN = 0.018

/** How a part is shown: its colour, how much of it is seen through, whether it hides what is behind. */
export interface Look {
  colour: string
  opacity: number
  edges: number
  solid: boolean
}

export type Place = [number, number, number]

/** A mark on the tank [mm, vehicle axes]. */
export interface Pin {
  id: string
  place: Place
}

interface Props {
  pieces: FoldPiece[]
  /** From flat (0) to folded (1), of each part. */
  share: (piece: FoldPiece) => number
  look: (piece: FoldPiece) => Look
  onChoose?: (part: string) => void
  /** A spot on the tank was pressed [mm, vehicle axes]: what is pressed then is no part. */
  onSpot?: (place: Place) => void
  /** Marks on the tank, pressed by name. */
  pins?: readonly Pin[]
  onPin?: (id: string) => void
  /** Whether the picture takes in all parts as they lie, and not the folded tank alone. */
  fitted?: boolean
}

/** All parts of a tank in space, each folded so far. */
export function FoldScene(props: Props) {
  return (
    <Canvas
      flat
      frameloop="demand"
      gl={{ antialias: drawnBy() === 'graphics card' }}
      camera={{ fov: 32, near: 0.01, far: 200, up: [0, 0, 1], position: [2.4, -3, 1.9] }}
    >
      <Scene {...props} />
    </Canvas>
  )
}

function Scene({ pieces, share, look, onChoose, onSpot, pins = [], onPin, fitted = false }: Props) {
  const { camera, invalidate, size } = useThree()
  const { inks } = useTheme()
  const whole = useMemo(() => boxRound(pieces), [pieces])
  const outside = useMemo(() => {
    const apart = whole ? Math.hypot(...whole.high.map((high, axis) => high - (whole.low[axis] ?? 0))) * OUTSIDE : 0
    return (piece: FoldPiece) => (1 - share(piece)) * apart
  }, [whole, share])
  const about = useMemo(
    () => (fitted ? boxRound(pieces, (piece) => folded(piece, share(piece), outside(piece))) : whole),
    [fitted, pieces, share, outside, whole],
  )
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
  useEffect(() => invalidate(), [pieces, share, look, pins, inks, invalidate])
  return (
    <>
      <ambientLight intensity={1.6} />
      <directionalLight position={[3, -5, 6]} intensity={1.8} />
      {pieces.map((piece) => (
        <Piece
          key={`${piece.part} ${piece.piece}`}
          piece={piece}
          share={share(piece)}
          outside={outside(piece)}
          look={look(piece)}
          {...(onChoose ? { onChoose } : {})}
          {...(onSpot ? { onSpot } : {})}
        />
      ))}
      {pins.map(({ id, place }) => (
        <mesh
          key={id}
          position={[place[0] * M, place[1] * M, place[2] * M]}
          renderOrder={3}
          onClick={(event) => {
            event.stopPropagation()
            onPin?.(id)
          }}
        >
          <sphereGeometry args={[reach * PIN, 16, 12]} />
          <meshBasicMaterial color={inks.hand} depthTest={false} transparent />
        </mesh>
      ))}
      <OrbitControls makeDefault target={centre} enableDamping={false} />
    </>
  )
}

interface PieceProps {
  piece: FoldPiece
  share: number
  outside: number
  look: Look
  onChoose?: (part: string) => void
  onSpot?: (place: Place) => void
}

function Piece({ piece, share, outside, look, onChoose, onSpot }: PieceProps) {
  const shapes = useMemo(() => piece.panels.map((panel) => geometryOf(panel.rings as number[][][][])), [piece])
  const places = folded(piece, share, outside)
  return (
    <group scale={M}>
      {shapes.map(({ faces, edges }, n) => {
        const matrix = new THREE.Matrix4().set(...(places[n] as Parameters<THREE.Matrix4['set']>))
        return (
          <group key={n} matrixAutoUpdate={false} matrix={matrix}>
            <mesh
              geometry={faces}
              renderOrder={look.solid ? 1 : 2}
              onClick={(event) => {
                if (event.delta > 3 || !(onSpot ?? onChoose)) return
                event.stopPropagation()
                if (onSpot) onSpot([event.point.x / M, event.point.y / M, event.point.z / M])
                else onChoose?.(piece.part)
              }}
            >
              <meshLambertMaterial
                color={look.colour}
                transparent
                opacity={look.opacity}
                side={THREE.DoubleSide}
                depthWrite={look.solid}
              />
            </mesh>
            <lineSegments geometry={edges}>
              <lineBasicMaterial color={look.colour} transparent opacity={look.edges} />
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
