import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build, Operation } from '../api/model'
import { useUnits } from '../units/useUnits'
import { record } from './build'

type Tightening = NonNullable<Operation['tightening']>

const SIZE = 260
const RING = 100
const BOLT = 20

interface Props {
  build: Build
  operation: Operation
  tightening: Tightening
  mayWrite: boolean
}

/** Bolt by bolt in the order that draws a ring down flat, pass by pass: one press a bolt. */
export function BoltRing({ build, operation, tightening, mayWrite }: Props) {
  const { inks } = useTheme()
  const units = useUnits()
  const [turned, setTurned] = useState(0)
  const { order, passes, torque_nm: full } = tightening
  const count = order.length
  const all = count * passes.length
  const pass = Math.min(passes.length - 1, Math.floor(turned / count))
  const share = passes[pass] ?? 1
  const bolt = turned < all ? order[turned % count] : undefined
  const torque = full ? units.quantity('nm', full * share) : `${Math.round(share * 100)} % of full torque`
  return (
    <Box component="section" aria-label="Tightening" data-turned={turned} sx={{ textAlign: 'center' }}>
      <svg
        viewBox={`0 0 ${SIZE} ${SIZE}`}
        width={SIZE}
        height={SIZE}
        role="img"
        aria-label={`${count} bolts in star order`}
      >
        <circle cx={SIZE / 2} cy={SIZE / 2} r={RING} fill="none" stroke={inks.metal} strokeWidth={3} />
        {order.map((_, at) => {
          const number = at + 1
          const angle = -Math.PI / 2 - (2 * Math.PI * at) / count
          const [x, y] = [SIZE / 2 + RING * Math.cos(angle), SIZE / 2 + RING * Math.sin(angle)]
          const isDone = order.indexOf(number) < turned - pass * count
          const fill = number === bolt ? inks.hand : isDone ? inks.metal : inks.sheet
          return (
            <g key={number}>
              <circle cx={x} cy={y} r={BOLT} fill={fill} stroke={inks.metal} strokeWidth={2} />
              <text
                x={x}
                y={y}
                textAnchor="middle"
                dominantBaseline="central"
                fontSize={17}
                fontWeight={650}
                fill={number === bolt || isDone ? inks.sheet : inks.ink}
              >
                {number}
              </text>
            </g>
          )
        })}
        <text
          x={SIZE / 2}
          y={SIZE / 2}
          textAnchor="middle"
          dominantBaseline="central"
          fontSize={34}
          fontWeight={700}
          fill={inks.ink}
        >
          {bolt ?? '✓'}
        </text>
      </svg>
      <Box sx={{ fontSize: '1.1rem', mb: 1 }}>
        {bolt === undefined
          ? 'All passes done, none left on the bench'
          : `Pass ${pass + 1} of ${passes.length}: bolt ${bolt} to ${torque}`}
      </Box>
      {mayWrite && (
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button
            variant="outlined"
            sx={{ minHeight: 64 }}
            disabled={turned === 0}
            onClick={() => setTurned(turned - 1)}
          >
            Back
          </Button>
          <Button
            variant="contained"
            sx={{ minHeight: 64, flex: 1 }}
            disabled={bolt === undefined}
            onClick={() => {
              setTurned(turned + 1)
              if (turned + 1 < all) return
              const note = `${count} bolts, ${passes.length} passes${full ? `, ${full} N·m` : ''}`
              void record(build, { kind: 'note', subject: operation.id, note: `Tightened in star order: ${note}` })
            }}
          >
            {bolt === undefined ? 'Tightened' : `Bolt ${bolt} is tight: next`}
          </Button>
        </Box>
      )}
    </Box>
  )
}
