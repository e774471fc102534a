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
/** How thick a usual line is, as a share of the tank. */
const STROKE = 0.0032
const BOW_STEPS = 24
const BOW_RULES = 4

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
  colour?: string
  small?: boolean
}

/** Lines on the tank: a seam. */
export interface Stroke {
  id: string
  lines: Place[][]
  colour: string
  /** In shares of a usual line. */
  thick: number
}

/** A panel that bows: four corners in turn, the way out, and how far its middle is drawn [mm]. */
export interface Bulge {
  corners: Place[]
  out: Place
  bow: number
  round: boolean
  colour: string
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
  strokes?: readonly Stroke[]
  bulges?: readonly Bulge[]
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

const NONE: never[] = []

function Scene({
  pieces,
  share,
  look,
  onChoose,
  onSpot,
  pins = NONE,
  onPin,
  strokes = NONE,
  bulges = NONE,
  fitted = false,
}: Props) {
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
  useEffect(() => invalidate(), [pieces, share, look, pins, strokes, bulges, inks, invalidate])
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
      {bulges.map((bulge, n) => (
        <Bowed key={n} bulge={bulge} />
      ))}
      {strokes.map((stroke) => (
        <Stroked key={stroke.id} stroke={stroke} radius={reach * STROKE * stroke.thick} />
      ))}
      {pins.map(({ id, place, colour, small }) => (
        <mesh
          key={id}
          position={[place[0] * M, place[1] * M, place[2] * M]}
          renderOrder={3}
          onClick={(event) => {
            event.stopPropagation()
            onPin?.(id)
          }}
        >
          <sphereGeometry args={[reach * PIN * (small ? 0.55 : 1), 16, 12]} />
          <meshBasicMaterial color={colour ?? inks.hand} depthTest={false} transparent />
        </mesh>
      ))}
      <OrbitControls makeDefault target={centre} enableDamping={false} />
    </>
  )
}

/** A seam as a thin rod along its lines. */
function Stroked({ stroke, radius }: { stroke: Stroke; radius: number }) {
  const rods = useMemo(
    () =>
      stroke.lines.flatMap((line) =>
        line.slice(1).map((end, n) => {
          const [from, to] = [new THREE.Vector3(...(line[n] ?? end)), new THREE.Vector3(...end)]
          const way = to.clone().sub(from).multiplyScalar(M)
          const turn = new THREE.Quaternion().setFromUnitVectors(new THREE.Vector3(0, 1, 0), way.clone().normalize())
          return { middle: from.add(to).multiplyScalar(M / 2), long: way.length(), turn }
        }),
      ),
    [stroke.lines],
  )
  return rods.map(({ middle, long, turn }, n) => (
    <mesh key={n} position={middle} quaternion={turn} renderOrder={2}>
      <cylinderGeometry args={[radius, radius, long, 6]} />
      <meshBasicMaterial color={stroke.colour} />
    </mesh>
  ))
}

/** A panel bowed as a plate bows: flat along its edges, furthest out in its middle; lines across it show how far. */
function Bowed({ bulge }: { bulge: Bulge }) {
  const { inks } = useTheme()
  const [face, lines] = useMemo(() => {
    const at = bowedAt(bulge)
    return [bowedFace(at), bowedLines(at)] as const
  }, [bulge])
  return (
    <>
      <mesh geometry={face} renderOrder={1}>
        <meshLambertMaterial color={bulge.colour} side={THREE.DoubleSide} transparent opacity={0.7} />
      </mesh>
      <lineSegments geometry={lines} renderOrder={2}>
        <lineBasicMaterial color={inks.ink} transparent opacity={0.55} />
      </lineSegments>
    </>
  )
}

type Spot = (u: number, v: number) => THREE.Vector3

/** Where a spot of a bowed panel lies, both shares from −½ to ½. */
function bowedAt({ corners, out, bow, round }: Bulge): Spot {
  const [a, b, , d] = corners.map((corner) => new THREE.Vector3(...corner))
  const [from, first, second] = [a ?? new THREE.Vector3(), b?.clone().sub(a ?? b), d?.clone().sub(a ?? d)]
  const away = new THREE.Vector3(...out)
  return (across, up) => {
    const [u, v] = round ? [across * Math.sqrt(1 - 2 * up * up), up * Math.sqrt(1 - 2 * across * across)] : [across, up]
    const rise = round ? (1 - 4 * (u * u + v * v)) ** 2 : (Math.cos(Math.PI * u) * Math.cos(Math.PI * v)) ** 2
    const place = from.clone().addScaledVector(away, bow * Math.max(0, rise))
    if (first && second) place.addScaledVector(first, u + 0.5).addScaledVector(second, v + 0.5)
    return place.multiplyScalar(M)
  }
}

function bowedFace(at: Spot) {
  const geometry = new THREE.PlaneGeometry(1, 1, BOW_STEPS, BOW_STEPS)
  const places = geometry.getAttribute('position')
  for (let n = 0; n < places.count; n++) places.setXYZ(n, ...at(places.getX(n), places.getY(n)).toArray())
  geometry.computeVertexNormals()
  return geometry
}

function bowedLines(at: Spot) {
  const steps = Array.from({ length: BOW_STEPS + 1 }, (_, n) => n / BOW_STEPS - 0.5)
  const rules = steps.filter((_, n) => n % BOW_RULES === 0)
  const along = (spot: (share: number) => THREE.Vector3) =>
    steps.slice(1).flatMap((step, n) => [spot(steps[n] ?? step), spot(step)])
  const spots = rules.flatMap((rule) => [...along((u) => at(u, rule)), ...along((v) => at(rule, v))])
  return new THREE.BufferGeometry().setFromPoints(spots)
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
