import { Button, Typography } from '@mui/material'
import { Link } from 'react-router'
import { useBuild, withSteps } from '../../floor/build'
import { Goods } from '../../floor/Goods'
import { LearntList } from '../../floor/LearntList'
import { LogRows } from '../../floor/LogRows'
import { OperationList } from '../../floor/OperationList'
import { AgreedList, SentOut } from '../../floor/Outside'
import { span } from '../../floor/time'
import { Papers } from '../../papers/Papers'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'
import type { PanelProps } from '../station'
import { choose, useAtHand } from './chosen'

/** The list of operations, what they take, and the way to the bench. */
export function BuildStation({ designId, findings }: PanelProps) {
  const { build: whole } = useBuild(designId)
  const build = whole && withSteps(whole, false)
  const { state } = useAtHand(build)
  const readOnly = useWork((work) => work.readOnly)
  if (!build) return findings
  const { operations, gates, gone } = build.state
  const here = build.state.goods.filter((one) => one.whole >= one.item.quantity).length
  const away = build.state.out.filter((one) => !one.whole).length
  const timed = operations.filter((one) => one.operation.minutes !== null)
  const planned = timed.reduce((sum, one) => sum + (one.operation.minutes ?? 0), 0)
  const clocked = timed.filter((one) => one.spent_min !== null)
  const taken = clocked.reduce((sum, one) => sum + (one.spent_min ?? 0), 0)
  const expected = clocked.reduce((sum, one) => sum + (one.operation.minutes ?? 0), 0)
  const untimed = operations.length - timed.length
  const unmet = gates.filter((gate) => gate.standing === 'overridden').length
  return (
    <>
      {operations.length > 0 && (
        <Typography>
          Planned {span(planned)} in all
          {untimed > 0 && `, ${untimed} of ${operations.length} steps without a rate`}.
          {clocked.length > 0 && ` The ${clocked.length} timed so far took ${span(taken)}, planned ${span(expected)}.`}
          {unmet > 0 && ` ${unmet} ${unmet === 1 ? 'gate' : 'gates'} passed unmet.`}
        </Typography>
      )}
      {untimed > 0 && (
        <Typography variant="body2">
          <Link to="/workshop" style={{ color: 'inherit' }}>
            Type the rates of your shop
          </Link>{' '}
          to plan the rest.
        </Typography>
      )}
      <Button component={Link} to={`/floor/${build.job_number}?design=${designId}`} variant="outlined">
        Open at the bench, for a phone
      </Button>
      <OperationList build={build} at={state?.operation.id ?? null} onChoose={choose} />
      {build.state.goods.length > 0 && (
        <Folded title={`Goods in, ${here} of ${build.state.goods.length} complete`}>
          <Goods build={build} mayWrite={!readOnly} />
        </Folded>
      )}
      <Folded title={`Sent out, ${away} away`}>
        <SentOut build={build} mayWrite={!readOnly} />
      </Folded>
      <Folded title={`Agreed with the customer, ${build.state.agreed.length}`}>
        <AgreedList build={build} mayWrite={!readOnly} />
      </Folded>
      <Folded title={`Learnt, ${build.state.learnt.length}`}>
        <LearntList build={build} mayWrite={!readOnly} />
      </Folded>
      <Papers station="build" />
      <Folded title={`Log, ${build.last} entries`}>
        <LogRows rows={build.rows} build={build} mayWrite={!readOnly} />
      </Folded>
      {gone.length > 0 && (
        <Typography variant="body2">
          Done on what the design no longer has: {gone.join(', ')}. The log keeps it.
        </Typography>
      )}
      {findings}
    </>
  )
}
