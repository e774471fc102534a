import type { Build, Operation } from '../../api/model'
import { pourOf, VISIT } from '../build'
import { chooseJoint, useJointAtHand } from './atHand'
import { Hold } from './Hold'
import { Joints } from './Joints'
import { Pour } from './Pour'

interface Props {
  build: Build
  operation: Operation
  mayWrite: boolean
}

/** Steps that joints are looked at in, or after. */
const VISITS = [VISIT, 'commission:drive', 'commission:hand-over']

/** What a step from first fuel to hand-over takes beside its looks: fuel poured, lines held, joints visited. */
export function LastStep({ build, operation, mayWrite }: Props) {
  const joint = useJointAtHand((at) => at.joint)
  const fill = build.fills.find((one) => pourOf(one) === operation.id)
  if (fill) return <Pour build={build} fill={fill} mayWrite={mayWrite} />
  if (operation.id === 'commission:hold') return <Hold build={build} mayWrite={mayWrite} />
  if (!VISITS.includes(operation.id)) return null
  return <Joints build={build} mayWrite={mayWrite} at={joint} onJoint={chooseJoint} />
}
