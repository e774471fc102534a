import { useMemo } from 'react'
import * as THREE from 'three'
import type { Axis, Evaluation, LinePart, Lines } from '../api/model'
import { M } from './three'

type Place = Record<Axis, number>

const SIDES = 8

/** The lines in space: every run as a tube, every part as a block as large as it is. */
export function LineSolids({
  lines,
  routes,
  colour,
  metal,
}: {
  lines: Lines
  routes: NonNullable<NonNullable<Evaluation['lines']>['routes']>
  colour: string
  metal: string
}) {
  return (
    <group>
      {routes.map((route) =>
        route.line
          .slice(1)
          .map((end, n) => (
            <Straight
              key={`${route.id}-${n}`}
              from={route.line[n] ?? end}
              to={end}
              radius={route.outside_mm / 2}
              colour={colour}
            />
          )),
      )}
      {lines.parts.map((part) => (
        <Block key={part.id} part={part} colour={metal} />
      ))}
    </group>
  )
}

function Straight({ from, to, radius, colour }: { from: Place; to: Place; radius: number; colour: string }) {
  const [a, b] = [new THREE.Vector3(from.x, from.y, from.z), new THREE.Vector3(to.x, to.y, to.z)]
  const long = a.distanceTo(b)
  const turn = useMemo(() => {
    const way = new THREE.Vector3(to.x - from.x, to.y - from.y, to.z - from.z).normalize()
    return new THREE.Quaternion().setFromUnitVectors(new THREE.Vector3(0, 1, 0), way)
  }, [from, to])
  if (long < 1) return null
  const middle = a.add(b).multiplyScalar(M / 2)
  return (
    <mesh position={middle} quaternion={turn}>
      <cylinderGeometry args={[radius * M, radius * M, long * M, SIDES]} />
      <meshStandardMaterial color={colour} />
    </mesh>
  )
}

function Block({ part, colour }: { part: LinePart; colour: string }) {
  const stands = part.upright || part.does.kind === 'surge tank'
  const size: [number, number, number] = stands
    ? [part.across_mm * M, part.across_mm * M, part.long_mm * M]
    : [part.long_mm * M, part.across_mm * M, part.across_mm * M]
  return (
    <mesh
      position={[part.x_mm * M, part.y_mm * M, part.z_mm * M]}
      rotation={[0, 0, (part.heading_deg * Math.PI) / 180]}
    >
      <boxGeometry args={size} />
      <meshStandardMaterial color={colour} />
    </mesh>
  )
}
