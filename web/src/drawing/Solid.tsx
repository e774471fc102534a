import { OrbitControls } from '@react-three/drei'
import { Canvas, useThree } from '@react-three/fiber'
import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useEffect, useMemo } from 'react'
import * as THREE from 'three'
import type { Block, Design, Evaluation, Fill, Geometry } from '../api/model'
import { boundsOf } from './layout'

interface Props {
  design: Design
  evaluation: Evaluation | null
  large: boolean
  onLarge: (large: boolean) => void
  place: { x: number; y: number; width: number; height: number }
}

let webgl: boolean | null = null

/** Whether this browser can draw in three dimensions. `?flat` in the address says no, for trying the fallback. */
function hasWebgl(): boolean {
  if (new URLSearchParams(window.location.search).has('flat')) return false
  webgl ??= (() => {
    try {
      const context = document.createElement('canvas').getContext('webgl2')
      context?.getExtension('WEBGL_lose_context')?.loseContext()
      return context !== null
    } catch {
      return false
    }
  })()
  return webgl
}

/** The same tank as a solid, to be turned about. */
export default function Solid({ design, evaluation, large, onLarge, place }: Props) {
  const { inks } = useTheme()
  if (place.width < 150 || place.height < 120) return null
  const frame = { position: 'absolute', left: place.x, top: place.y, width: place.width, height: place.height } as const
  if (!hasWebgl()) {
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
      <Canvas flat frameloop="demand" dpr={1} gl={{ antialias: true, preserveDrawingBuffer: true }} camera={{ fov: 32, near: 0.01, far: 200, up: [0, 0, 1], position: [2.4, -3, 1.9] }}>
        <Scene design={design} evaluation={evaluation} />
      </Canvas>
      <Box sx={{ position: 'absolute', right: 8, top: 4, display: 'flex', alignItems: 'center', gap: 1 }}>
        <span style={{ fontSize: 12, color: inks.quiet }}>{large ? 'Drag to turn, wheel to come nearer' : 'Solid'}</span>
        <Button size="small" onClick={() => onLarge(!large)}>
          {large ? 'Back to the views' : 'Enlarge'}
        </Button>
      </Box>
    </Box>
  )
}

const M = 1 / 1000

function Scene({ design, evaluation }: { design: Design; evaluation: Evaluation | null }) {
  const { inks } = useTheme()
  const { camera, invalidate, size } = useThree()
  const bounds = boundsOf(design, [evaluation])
  const centre = useMemo(() => {
    if (!bounds) return new THREE.Vector3()
    const middle = (axis: 'x' | 'y' | 'z') => ((bounds[axis][0] + bounds[axis][1]) / 2) * M
    return new THREE.Vector3(middle('x'), middle('y'), middle('z'))
  }, [bounds])
  const reach = bounds ? Math.hypot(...(['x', 'y', 'z'] as const).map((axis) => (bounds[axis][1] - bounds[axis][0]) * M)) : 1
  const key = `${centre.x.toFixed(2)} ${centre.y.toFixed(2)} ${centre.z.toFixed(2)} ${reach.toFixed(2)} ${size.width > size.height}`
  useEffect(() => {
    const wide = Math.min(1, size.width / size.height)
    camera.position.copy(centre).add(new THREE.Vector3(0.62, -0.8, 0.5).normalize().multiplyScalar((reach * 1.75) / wide))
    camera.lookAt(centre)
    invalidate()
    // The camera goes back only when what there is to see has grown or moved, or the picture changed shape.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key])
  useEffect(() => invalidate(), [design, evaluation, inks, invalidate])
  const shape = evaluation?.geometry
  const { bay } = design
  return (
    <>
      <ambientLight intensity={1.6} />
      <directionalLight position={[3, -5, 6]} intensity={1.8} />
      {bay && <Wire low={[0, 0, 0]} high={[bay.length_mm, bay.width_mm, bay.height_mm]} colour={inks.block} />}
      {bay?.keep_outs?.map((k) => (
        <Solidly key={k.id} low={[k.x_mm, k.y_mm, k.z_mm]} high={[k.x_mm + k.length_mm, k.y_mm + k.width_mm, k.z_mm + k.height_mm]} colour={inks.block} opacity={0.75} />
      ))}
      {shape && <Shell shape={shape} colour={inks.metal} />}
      {evaluation?.fill && <Fuel fill={evaluation.fill} colour={inks.fuel} />}
      <OrbitControls makeDefault target={centre} enableDamping={false} />
    </>
  )
}

type Corner = [number, number, number]
const corner = ({ x, y, z }: Block['low']): Corner => [x, y, z]

function boxOf(low: Corner, high: Corner) {
  const size = low.map((value, axis) => ((high[axis] ?? 0) - value) * M) as Corner
  const position = low.map((value, axis) => ((value + (high[axis] ?? 0)) / 2) * M) as Corner
  return { size, position }
}

function Wire({ low, high, colour }: { low: Corner; high: Corner; colour: string }) {
  const { size, position } = boxOf(low, high)
  const [a, b, c] = size
  const edges = useMemo(() => new THREE.EdgesGeometry(new THREE.BoxGeometry(a, b, c)), [a, b, c])
  return (
    <lineSegments position={position} geometry={edges}>
      <lineBasicMaterial color={colour} />
    </lineSegments>
  )
}

function Solidly({ low, high, colour, opacity }: { low: Corner; high: Corner; colour: string; opacity: number }) {
  const { size, position } = boxOf(low, high)
  return (
    <mesh position={position}>
      <boxGeometry args={size} />
      <meshStandardMaterial color={colour} transparent opacity={opacity} />
    </mesh>
  )
}

/** A prism along the wrapper's axis: the rounded section drawn out. */
function usePrism(low: Corner, high: Corner, radius: number, wrap: string) {
  const [lx, ly, lz] = low
  const [hx, hy, hz] = high
  return useMemo(() => {
    const along = (wrap === 'x' ? hx - lx : hy - ly) * M
    const width = (wrap === 'x' ? hy - ly : hx - lx) * M
    const height = (hz - lz) * M
    const r = Math.max(0, Math.min(radius * M, width / 2, height / 2))
    const shape = new THREE.Shape()
    shape.moveTo(r, 0)
    shape.lineTo(width - r, 0)
    if (r) shape.absarc(width - r, r, r, -Math.PI / 2, 0)
    shape.lineTo(width, height - r)
    if (r) shape.absarc(width - r, height - r, r, 0, Math.PI / 2)
    shape.lineTo(r, height)
    if (r) shape.absarc(r, height - r, r, Math.PI / 2, Math.PI)
    shape.lineTo(0, r)
    if (r) shape.absarc(r, r, r, Math.PI, 1.5 * Math.PI)
    const prism = new THREE.ExtrudeGeometry(shape, { depth: along, bevelEnabled: false, curveSegments: 8 })
    // The section lies in (across, up); drawn out along the wrapper's axis.
    const turn = new THREE.Matrix4()
    if (wrap === 'x') turn.set(0, 0, 1, lx * M, 1, 0, 0, ly * M, 0, 1, 0, lz * M, 0, 0, 0, 1)
    else turn.set(1, 0, 0, lx * M, 0, 0, 1, ly * M, 0, 1, 0, lz * M, 0, 0, 0, 1)
    prism.applyMatrix4(turn)
    prism.computeVertexNormals()
    return prism
  }, [lx, ly, lz, hx, hy, hz, radius, wrap])
}

function Shell({ shape, colour }: { shape: Geometry; colour: string }) {
  const outer = shape.bend_radius_mm ? shape.bend_radius_mm + shape.thickness_mm : 0
  const prism = usePrism(corner(shape.overall.low), corner(shape.overall.high), outer, shape.wrap_axis)
  const edges = useMemo(() => new THREE.EdgesGeometry(prism, 25), [prism])
  return (
    <group>
      <mesh geometry={prism} renderOrder={2}>
        <meshStandardMaterial color={colour} transparent opacity={0.28} side={THREE.DoubleSide} depthWrite={false} />
      </mesh>
      <lineSegments geometry={edges}>
        <lineBasicMaterial color={colour} />
      </lineSegments>
    </group>
  )
}

/** The fuel's faces and its surface, each polygon as a fan. */
function Fuel({ fill, colour }: { fill: Fill; colour: string }) {
  const body = useMemo(() => {
    const places = [...fill.faces, ...fill.surface].flatMap((polygon) =>
      polygon.slice(1, -1).flatMap((_, step) => [polygon[0], polygon[step + 1], polygon[step + 2]].flatMap((point) => (point ? [point.x * M, point.y * M, point.z * M] : []))),
    )
    const geometry = new THREE.BufferGeometry()
    geometry.setAttribute('position', new THREE.Float32BufferAttribute(places, 3))
    geometry.computeVertexNormals()
    return geometry
  }, [fill])
  return (
    <mesh geometry={body} renderOrder={1}>
      <meshStandardMaterial color={colour} emissive={colour} emissiveIntensity={0.45} transparent opacity={0.9} side={THREE.DoubleSide} />
    </mesh>
  )
}
