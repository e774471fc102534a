import { OrbitControls } from '@react-three/drei'
import { Canvas, useThree } from '@react-three/fiber'
import { useTheme } from '@mui/material/styles'
import { useEffect, useMemo } from 'react'
import * as THREE from 'three'
import type { RunShown } from '../../api/model'
import { drawnBy, M, surfaceGeometry } from '../../drawing/three'
import { useMoment } from './slosh'

type Room = RunShown['rooms'][number]

/** The tank as a solid at the moment shown: each compartment filled up to its own surface. Drag to turn it. */
export default function SolidFrame({ run }: { run: RunShown }) {
  const { inks } = useTheme()
  if (drawnBy() === 'none')
    return (
      <div style={{ fontSize: 13, color: inks.quiet }}>
        This browser can’t draw in three dimensions (no WebGL). The flat views show everything.
      </div>
    )
  return (
    <figure style={{ margin: 0, minWidth: 0 }}>
      <figcaption style={{ fontSize: 12, color: inks.quiet }}>Solid, drag to turn</figcaption>
      <div style={{ height: 168 }} role="img" aria-label="The tank as a solid at the moment shown" data-solid="moving">
        <Canvas
          flat
          frameloop="demand"
          dpr={drawnBy() === 'software' ? 0.8 : 1.5}
          gl={{ localClippingEnabled: true, antialias: drawnBy() !== 'software', preserveDrawingBuffer: true }}
          camera={{ fov: 30, near: 0.01, far: 200, up: [0, 0, 1] }}
        >
          <Scene run={run} />
        </Canvas>
      </div>
    </figure>
  )
}

function Scene({ run }: { run: RunShown }) {
  const { inks } = useTheme()
  const { camera, invalidate } = useThree()
  const at = useMoment()
  const bounds = useMemo(() => {
    const box = new THREE.Box3()
    for (const room of run.rooms)
      for (let i = 0; i < room.points.length; i += 3)
        box.expandByPoint(
          new THREE.Vector3((room.points[i] ?? 0) * M, (room.points[i + 1] ?? 0) * M, (room.points[i + 2] ?? 0) * M),
        )
    return { middle: box.getCenter(new THREE.Vector3()), reach: box.getSize(new THREE.Vector3()).length() }
  }, [run])
  const key = `${bounds.middle
    .toArray()
    .map((v) => v.toFixed(3))
    .join(' ')} ${bounds.reach.toFixed(3)}`
  useEffect(() => {
    camera.position
      .copy(bounds.middle)
      .add(new THREE.Vector3(0.62, -0.8, 0.55).normalize().multiplyScalar(bounds.reach * 1.75))
    camera.lookAt(bounds.middle)
    // The camera stays where it was turned to while the same tank is run again.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key])
  useEffect(() => invalidate(), [run, at, inks, invalidate])
  return (
    <>
      <ambientLight intensity={1.7} />
      <directionalLight position={[3, -5, 6]} intensity={1.5} />
      {run.rooms.map((room, i) => (
        <Filled
          key={room.name}
          room={room}
          plane={run.planes[at]?.[i] ?? [0, 0, 1, 0]}
          wet={(run.held_l[at]?.[i] ?? 0) > 0.001}
        />
      ))}
      {run.inlets.map((inlet, p) => (
        <mesh key={inlet.name + p} position={[inlet.x * M, inlet.y * M, inlet.z * M]} renderOrder={4}>
          <sphereGeometry args={[bounds.reach * 0.018, 16, 12]} />
          <meshBasicMaterial color={(run.depths_mm[at]?.[p] ?? 0) > 0 ? inks.ink : inks.stop} depthTest={false} />
        </mesh>
      ))}
      <OrbitControls
        makeDefault
        target={bounds.middle}
        enableDamping={false}
        enablePan={false}
        onChange={() => invalidate()}
      />
    </>
  )
}

/**
 * A compartment's edges, and its space below the surface. A closed mesh that a plane cuts shows its back faces exactly
 * where one looks through the cut: in one flat colour they are the surface.
 */
function Filled({ room, plane, wet }: { room: Room; plane: number[]; wet: boolean }) {
  const { inks } = useTheme()
  const surface = useMemo(() => surfaceGeometry(room.points, room.triangles), [room])
  const edges = useMemo(() => new THREE.EdgesGeometry(surface, 22), [surface])
  const [x = 0, y = 0, z = 1, level = 0] = plane
  const cut = useMemo(() => [new THREE.Plane(new THREE.Vector3(-x, -y, -z), level * M)], [x, y, z, level])
  return (
    <group>
      {wet && (
        <>
          <mesh geometry={surface} renderOrder={1}>
            <meshLambertMaterial
              color={inks.fuel}
              side={THREE.FrontSide}
              clippingPlanes={cut}
              emissive={inks.fuel}
              emissiveIntensity={0.35}
              flatShading
            />
          </mesh>
          <mesh geometry={surface} renderOrder={2}>
            <meshBasicMaterial color={inks.fuelFill} side={THREE.BackSide} clippingPlanes={cut} />
          </mesh>
        </>
      )}
      <lineSegments geometry={edges} renderOrder={3}>
        <lineBasicMaterial color={inks.metal} />
      </lineSegments>
    </group>
  )
}
