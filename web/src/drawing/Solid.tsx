import { shapeOf } from './shape'
import { OrbitControls } from '@react-three/drei'
import { Canvas, useFrame, useThree } from '@react-three/fiber'
import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useEffect, useMemo, useRef, useState } from 'react'
import * as THREE from 'three'
import { useQuery } from '@tanstack/react-query'
import type { Bay, Design, Evaluation, Fill, Shape, KeepOut } from '../api/model'
import { scanQuery } from '../stations/bay/scans'
import { axisOf, type Box as Span, boxOf } from './keepOuts'
import { boundsOf } from './layout'
import { LineSolids } from './LineSolids'
import { drawnBy, M, meshOf, surfaceGeometry } from './three'

interface Props {
  design: Design
  evaluation: Evaluation | null
  large: boolean
  onLarge: (large: boolean) => void
  place: { x: number; y: number; width: number; height: number }
}

/** The same tank as a solid, to be turned about. */
export default function Solid({ design, evaluation, large, onLarge, place }: Props) {
  const { inks } = useTheme()
  const [simple, setSimple] = useState(false)
  if (place.width < 150 || place.height < 120) return null
  const frame = { position: 'absolute', left: place.x, top: place.y, width: place.width, height: place.height } as const
  if (drawnBy() === 'none') {
    return (
      <Box sx={{ ...frame, display: 'grid', placeContent: 'center', p: 2 }} data-solid="flat">
        <Typography variant="body2" color="textSecondary" sx={{ maxWidth: '22em' }}>
          This browser can’t draw in three dimensions (no WebGL). The flat views show everything.
        </Typography>
      </Box>
    )
  }
  return (
    <Box sx={frame} data-solid="drawn" role="group" aria-label="Solid view">
      <Canvas
        flat
        frameloop="demand"
        dpr={simple ? 0.6 : 1}
        gl={{ antialias: drawnBy() === 'graphics card' }}
        camera={{ fov: 32, near: 0.01, far: 200, up: [0, 0, 1], position: [2.4, -3, 1.9] }}
      >
        <Scene design={design} evaluation={evaluation} simple={simple} />
        <Pace onSlow={() => setSimple(true)} />
      </Canvas>
      <Box sx={{ position: 'absolute', right: 8, top: 4, display: 'flex', alignItems: 'center', gap: 1 }}>
        {simple && <span style={{ fontSize: 12, color: inks.quiet }}>Shown simpler, to keep up</span>}
        <span style={{ fontSize: 12, color: inks.quiet }}>
          {large ? 'Drag to turn, wheel to come nearer' : 'Solid'}
        </span>
        <Button size="small" onClick={() => onLarge(!large)}>
          {large ? 'Back to the views' : 'Enlarge'}
        </Button>
      </Box>
    </Box>
  )
}

/** Times the pictures while it is being turned; when they come slower than 30 a second, a simpler one is shown. */
function Pace({ onSlow }: { onSlow: () => void }) {
  const last = useRef(0)
  const slow = useRef(0)
  useFrame(() => {
    const now = performance.now()
    const took = now - last.current
    last.current = now
    // A long pause is somebody resting, not a slow picture.
    if (took > 250) return
    slow.current = took > 1000 / 30 ? slow.current + 1 : Math.max(0, slow.current - 1)
    if (slow.current > 12) onSlow()
  })
  return null
}

function Scene({ design, evaluation, simple }: { design: Design; evaluation: Evaluation | null; simple: boolean }) {
  const { inks } = useTheme()
  const { camera, invalidate, size } = useThree()
  const led = evaluation?.lines?.routes ?? null
  const bounds = boundsOf(
    design,
    [evaluation],
    led?.flatMap((one) => one.line),
  )
  const centre = useMemo(() => {
    if (!bounds) return new THREE.Vector3()
    const middle = (axis: 'x' | 'y' | 'z') => ((bounds[axis][0] + bounds[axis][1]) / 2) * M
    return new THREE.Vector3(middle('x'), middle('y'), middle('z'))
  }, [bounds])
  const reach = bounds
    ? Math.hypot(...(['x', 'y', 'z'] as const).map((axis) => (bounds[axis][1] - bounds[axis][0]) * M))
    : 1
  const key = `${centre.x.toFixed(2)} ${centre.y.toFixed(2)} ${centre.z.toFixed(2)} ${reach.toFixed(2)} ${size.width > size.height}`
  useEffect(() => {
    const wide = Math.min(1, size.width / size.height)
    camera.position
      .copy(centre)
      .add(new THREE.Vector3(0.62, -0.8, 0.5).normalize().multiplyScalar((reach * 1.95) / wide))
    camera.lookAt(centre)
    invalidate()
    // The camera goes back only when what there is to see has grown or moved, or the picture changed shape.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key])
  useEffect(() => invalidate(), [design, evaluation, inks, invalidate])
  const shape = shapeOf(evaluation)
  const { bay } = design
  return (
    <>
      <ambientLight intensity={1.6} />
      <directionalLight position={[3, -5, 6]} intensity={1.8} />
      {bay && <Wire low={[0, 0, 0]} high={[bay.length_mm, bay.width_mm, bay.height_mm]} colour={inks.block} />}
      {bay?.keep_outs.map((k) => (
        <Neighbour key={k.id} keepOut={k} bay={bay} colour={inks.block} />
      ))}
      {shape && <Shell shape={shape} colour={inks.metal} simple={simple} />}
      {evaluation?.shell?.fill && <Fuel fill={evaluation.shell?.fill} colour={inks.fuel} />}
      {led && <LineSolids lines={design.lines} routes={led} colour={inks.fuelText} metal={inks.metal} />}
      <OrbitControls makeDefault target={centre} enableDamping={false} />
    </>
  )
}

type Corner3 = [number, number, number]

function boxBetween(low: Corner3, high: Corner3) {
  const size = low.map((value, axis) => ((high[axis] ?? 0) - value) * M) as Corner3
  const position = low.map((value, axis) => ((value + (high[axis] ?? 0)) / 2) * M) as Corner3
  return { size, position }
}

const boxOf3 = (low: Span['low'], high: Span['low']) => boxBetween([low.x, low.y, low.z], [high.x, high.y, high.z])

function Wire({ low, high, colour }: { low: Corner3; high: Corner3; colour: string }) {
  const { size, position } = boxBetween(low, high)
  const [a, b, c] = size
  const edges = useMemo(() => new THREE.EdgesGeometry(new THREE.BoxGeometry(a, b, c)), [a, b, c])
  return (
    <lineSegments position={position} geometry={edges}>
      <lineBasicMaterial color={colour} />
    </lineSegments>
  )
}

/** A keep-out by its kind: a box, a cylinder, a leaning sheet, a scanned mesh. */
function Neighbour({ keepOut, bay, colour }: { keepOut: KeepOut; bay: Bay; colour: string }) {
  if (keepOut.kind === 'scan') return <ScanMesh keepOut={keepOut} colour={colour} />
  if (keepOut.kind === 'slope') return <SlopeSheet keepOut={keepOut} bay={bay} colour={colour} />
  const box = boxOf(keepOut)
  if (!box) return null
  const { size, position } = boxOf3(box.low, box.high)
  const turn: Corner3 =
    keepOut.kind === 'cylinder'
      ? (({ x: [0, 0, Math.PI / 2], y: [0, 0, 0], z: [Math.PI / 2, 0, 0] } as Record<string, Corner3>)[
          keepOut.axis
        ] ?? [0, 0, 0])
      : [0, 0, 0]
  return (
    <mesh position={position} rotation={turn}>
      {keepOut.kind === 'cylinder' ? (
        <cylinderGeometry
          args={[(keepOut.diameter_mm / 2) * M, (keepOut.diameter_mm / 2) * M, keepOut.run_mm * M, 40]}
        />
      ) : (
        <boxGeometry args={size} />
      )}
      <meshLambertMaterial color={colour} transparent opacity={keepOut.planned ? 0.35 : 0.75} />
    </mesh>
  )
}

function SlopeSheet({
  keepOut,
  bay,
  colour,
}: {
  keepOut: Extract<KeepOut, { kind: 'slope' }>
  bay: Bay
  colour: string
}) {
  const geometry = useMemo(() => {
    const axis = axisOf(keepOut.blocked)
    const third = (['x', 'y', 'z'] as const).find((item) => item !== axis && item !== keepOut.along) ?? 'y'
    const sizes = { x: bay.length_mm, y: bay.width_mm, z: bay.height_mm }
    const at = (end: boolean, far: boolean) => {
      const place = { x: 0, y: 0, z: 0 }
      place[keepOut.along] = end ? sizes[keepOut.along] : 0
      place[axis] = end ? keepOut.end_mm : keepOut.start_mm
      place[third] = far ? sizes[third] : 0
      return [place.x * M, place.y * M, place.z * M]
    }
    const [a, b, c, d] = [at(false, false), at(true, false), at(true, true), at(false, true)]
    return meshOf([a, b, c, a, c, d].flat() as number[])
  }, [keepOut, bay])
  return (
    <mesh geometry={geometry}>
      <meshLambertMaterial color={colour} transparent opacity={0.4} side={THREE.DoubleSide} />
    </mesh>
  )
}

function ScanMesh({ keepOut, colour }: { keepOut: Extract<KeepOut, { kind: 'scan' }>; colour: string }) {
  const scan = useQuery(scanQuery(keepOut.scan)).data
  const geometry = useMemo(() => (scan ? surfaceGeometry(scan.shown_points, scan.shown_triangles) : null), [scan])
  if (!geometry) return null
  return (
    <mesh geometry={geometry} position={[keepOut.x_mm * M, keepOut.y_mm * M, keepOut.z_mm * M]}>
      <meshLambertMaterial
        color={colour}
        transparent
        opacity={keepOut.is_cavity ? 0.2 : 0.75}
        side={THREE.DoubleSide}
        flatShading
      />
    </mesh>
  )
}

function Shell({ shape, colour, simple }: { shape: Shape; colour: string; simple: boolean }) {
  const surface = useMemo(() => surfaceGeometry(shape.surface.points, shape.surface.triangles), [shape.surface])
  const edges = useMemo(() => new THREE.EdgesGeometry(surface, 22), [surface])
  return (
    <group>
      {!simple && (
        <mesh geometry={surface} renderOrder={2}>
          <meshLambertMaterial color={colour} transparent opacity={0.28} side={THREE.DoubleSide} depthWrite={false} />
        </mesh>
      )}
      <lineSegments geometry={edges}>
        <lineBasicMaterial color={colour} />
      </lineSegments>
    </group>
  )
}

/** The fuel's faces and its surface, each polygon as a fan. */
function Fuel({ fill, colour }: { fill: Fill; colour: string }) {
  const body = useMemo(() => {
    const places = [...fill.faces, ...fill.sheet].map((mm) => mm * M)
    const geometry = new THREE.BufferGeometry()
    geometry.setAttribute('position', new THREE.Float32BufferAttribute(places, 3))
    geometry.computeVertexNormals()
    return geometry
  }, [fill])
  return (
    <mesh geometry={body} renderOrder={1}>
      <meshLambertMaterial
        color={colour}
        emissive={colour}
        emissiveIntensity={0.45}
        transparent
        opacity={0.9}
        side={THREE.DoubleSide}
      />
    </mesh>
  )
}
