import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build, JointState } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { record } from '../build'
import { moment } from '../time'

interface Props {
  build: Build
  mayWrite: boolean
  /** Which joint is at hand; empty: the first that doesn't count yet. */
  at: string | null
  onJoint: (joint: string | null) => void
}

const MARKS: Record<string, string> = {
  pull: 'Pulled: it holds',
  pushed: 'Marked where it is pushed to',
  torque: 'Tight, marked across',
}

/** Every joint in walking order: dry, weep or leak, tightened, looked at again; and the marks it takes. */
export function Joints({ build, mayWrite, at, onJoint }: Props) {
  const { inks } = useTheme()
  const { joints } = build.state.commission
  const states = new Map(joints.map((one) => [one.id, one]))
  const inOrder = build.joints.flatMap((one) => states.get(one.id) ?? [])
  const counted = inOrder.filter((one) => one.lacks === null).length
  const joint = inOrder.find((one) => one.id === at) ?? inOrder.find((one) => one.lacks !== null)
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.5 }}>
      <Box sx={{ fontWeight: 650 }}>
        {counted} of {inOrder.length} joints dry and marked
      </Box>
      {joint ? (
        <AtHand
          key={joint.id}
          build={build}
          joint={joint}
          place={inOrder.indexOf(joint) + 1}
          mayWrite={mayWrite}
          onNext={() => onJoint(null)}
        />
      ) : (
        <Box sx={{ color: inks.good }}>Every joint counts.</Box>
      )}
      <Box component="ol" aria-label="Joints" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {inOrder.map((one, n) => (
          <li key={one.id}>
            <Button
              fullWidth
              aria-current={one.id === joint?.id ? 'step' : undefined}
              onClick={() => onJoint(one.id)}
              sx={{
                justifyContent: 'flex-start',
                textAlign: 'left',
                gap: 1,
                color: one.lacks ? 'text.primary' : inks.good,
              }}
            >
              <span style={{ minWidth: 22 }}>{one.lacks ? n + 1 : '✓'}</span>
              <span style={{ flex: 1 }}>{one.name}</span>
              <span style={{ fontSize: 13 }}>{one.found}</span>
            </Button>
          </li>
        ))}
      </Box>
    </Box>
  )
}

interface AtHandProps {
  build: Build
  joint: JointState
  place: number
  mayWrite: boolean
  onNext: () => void
}

function AtHand({ build, joint, place, mayWrite, onNext }: AtHandProps) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const [pressed, setPressed] = useState<string[]>([])
  const see = (found: 'dry' | 'weep' | 'leak' | 'tightened') => {
    void record(build, { kind: 'joint', subject: joint.id, found })
    if (found === 'dry' && joint.marks.every((mark) => joint.marked.includes(mark) || pressed.includes(mark))) onNext()
  }
  const wet = joint.found === 'weep' || joint.found === 'leak'
  return (
    <Box data-joint={joint.id} sx={{ border: `2px solid ${inks.hand}`, p: 1.5, display: 'grid', gap: 1.25 }}>
      <Box>
        <Box sx={{ fontSize: 20, fontWeight: 700 }}>
          {place}. {joint.name}
        </Box>
        <Box sx={{ color: joint.lacks ? 'text.secondary' : inks.good }}>
          {joint.lacks ? say(joint.lacks) : 'dry and marked'}
          {joint.when && `; ${joint.by}, ${moment(joint.when)}`}
        </Box>
      </Box>
      {mayWrite && (
        <>
          <Box role="group" aria-label="What shows that it holds" sx={{ display: 'grid', gap: 0.75 }}>
            {joint.marks.map((mark) => (
              <Button
                key={mark}
                variant={joint.marked.includes(mark) ? 'contained' : 'outlined'}
                sx={{ minHeight: 48 }}
                onClick={() => {
                  setPressed([...pressed, mark])
                  void record(build, { kind: 'joint mark', subject: joint.id, mark, good: true })
                }}
              >
                {MARKS[mark] ?? mark}
              </Button>
            ))}
          </Box>
          <Box
            role="group"
            aria-label="How it looks"
            sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 0.75 }}
          >
            {(['dry', 'weep', 'leak'] as const).map((found) => (
              <Button key={found} variant="outlined" sx={{ minHeight: 56 }} onClick={() => see(found)}>
                {found}
              </Button>
            ))}
          </Box>
          {wet && (
            <Button variant="contained" sx={{ minHeight: 48 }} onClick={() => see('tightened')}>
              Tightened, or made up anew
            </Button>
          )}
        </>
      )}
    </Box>
  )
}
