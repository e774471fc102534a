import { useTheme } from '@mui/material/styles'
import type { Build, JointState } from '../../api/model'
import { useBuild, VISIT } from '../../floor/build'
import { chooseJoint, useJointAtHand } from '../../floor/handover/atHand'
import type { Placed } from '../../drawing/layout'
import { useParams } from 'react-router'
import type { LayerProps } from '../station'
import { apart } from './apart'
import { chooseStep } from './steps'

const RADIUS = 8

/** Lines on tank and vehicle, each joint with its number in walking order, lit as it stands. */
export function HandoverLayer({ view, evaluation }: LayerProps) {
  const { inks } = useTheme()
  const { build } = useBuild(Number(useParams().designId))
  return (
    <g data-handover>
      {evaluation?.lines?.routes?.map((route) => (
        <path
          key={route.id}
          d={`M${route.line.map((place) => `${view.toX(place[view.across])} ${view.toY(place[view.up])}`).join('L')}`}
          fill="none"
          stroke={inks.metal}
          strokeOpacity={0.5}
          strokeWidth={Math.max(1.5, route.outside_mm * view.scale)}
          strokeLinejoin="round"
        />
      ))}
      {build && <Joints view={view} build={build} />}
    </g>
  )
}

function Joints({ view, build }: { view: Placed; build: Build }) {
  const { inks } = useTheme()
  const at = useJointAtHand((hand) => hand.joint)
  const states = new Map(build.state.commission.joints.map((one) => [one.id, one]))
  const own = build.joints.map(({ at: place }) => [view.toX(place[view.across]), view.toY(place[view.up])] as const)
  const shown = apart(own, 2 * RADIUS + 1)
  return build.joints.map((joint, n) => {
    const state = states.get(joint.id)
    const [x, y] = shown[n] ?? [0, 0]
    const [ownX, ownY] = own[n] ?? [0, 0]
    const counts = state?.lacks === null
    const colour = inkOf(state, inks)
    return (
      <g
        key={joint.id}
        data-joint={joint.id}
        style={{ cursor: 'pointer' }}
        onClick={() => {
          chooseStep(VISIT)
          chooseJoint(joint.id)
        }}
      >
        <title>{`${n + 1}. ${joint.name}`}</title>
        <path d={`M${ownX} ${ownY}L${x} ${y}`} stroke={colour} strokeWidth={1} />
        <circle
          cx={x}
          cy={y}
          r={RADIUS}
          fill={counts ? colour : inks.sheet}
          stroke={joint.id === at ? inks.hand : colour}
          strokeWidth={joint.id === at ? 3 : 1.8}
        />
        <text x={x} y={y + 3.5} textAnchor="middle" fontSize={10} fontWeight={700} fill={counts ? inks.sheet : colour}>
          {n + 1}
        </text>
      </g>
    )
  })
}

function inkOf(state: JointState | undefined, inks: Record<'good' | 'stop' | 'caution' | 'ink', string>) {
  if (!state || state.found === '') return inks.ink
  if (state.lacks === null) return inks.good
  return state.found === 'leak' ? inks.stop : inks.caution
}
