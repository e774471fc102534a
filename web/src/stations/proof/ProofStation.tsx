import { Box, Button, Typography } from '@mui/material'
import { Link } from 'react-router'
import * as declared from '../../api/declared'
import type { Design } from '../../api/model'
import { Choice, QuantityField, Toggle, VolumeField } from '../../fields/fields'
import { useBuild } from '../../floor/build'
import { Papers } from '../../papers/Papers'
import { useUnits } from '../../units/useUnits'
import { change, useWork } from '../../work/store'
import { Folded } from '../Folded'
import { pair } from '../Row'
import type { PanelProps } from '../station'
import { CellFigures } from './CellFigures'
import { Methods } from './Methods'

type ProofPart = Design['proof']

const put = (values: Partial<ProofPart>) =>
  change((design) => ({ ...design, proof: { ...design.proof, ...values } as ProofPart }))

/** The plan of the leak test, and what every cell bears. */
export function ProofStation({ designId, findings }: PanelProps) {
  const units = useUnits()
  const proof = useWork((work) => work.design.proof)
  const shell = useWork((work) => work.design.shell)
  const readOnly = useWork((work) => work.readOnly)
  const plan = useWork((work) => work.evaluation?.proof?.plan)
  const { build } = useBuild(designId)
  if (!shell)
    return <Typography variant="body2">There is nothing to test yet: give the tank a shape at Shell first.</Typography>
  const first = plan?.cells[0]
  const auto = (value: number | undefined) => (value === undefined ? undefined : units.quantity('finekpa', value))
  return (
    <>
      <Choice
        label="Method"
        value={proof.method}
        options={declared.Proof.choices.method}
        disabled={readOnly}
        onChange={(method) => put({ method })}
      />
      <Box sx={pair}>
        <QuantityField
          of="finekpa"
          label="Test pressure"
          path="proof.pressure_kpa"
          value={proof.pressure_kpa ?? null}
          emptyText={auto(first?.pressure_kpa)}
          disabled={readOnly}
          onCommit={(pressure_kpa) => put({ pressure_kpa })}
        />
        <QuantityField
          of="min"
          label="Length"
          path="proof.minutes"
          value={proof.minutes ?? null}
          emptyText={
            first ? units.quantity('min', Math.max(...(plan?.cells ?? []).map((cell) => cell.minutes))) : undefined
          }
          disabled={readOnly}
          onCommit={(minutes) => put({ minutes })}
        />
        <Choice
          label="Limiter"
          value={proof.limiter}
          options={declared.Proof.choices.limiter}
          disabled={readOnly}
          onChange={(limiter) => put({ limiter })}
        />
        <QuantityField
          of="finekpa"
          label="Limiter opens at"
          path="proof.limiter_kpa"
          value={proof.limiter_kpa ?? null}
          emptyText={auto(first?.limiter_kpa)}
          disabled={readOnly}
          onCommit={(limiter_kpa) => put({ limiter_kpa })}
        />
      </Box>
      <Choice
        label="Gauge"
        value={proof.gauge || (plan?.gauge.name ?? '')}
        options={(plan?.gauges ?? []).map((gauge) => ({
          value: gauge.name,
          label: `${gauge.name}, reads to ${units.quantity('finekpa', gauge.resolution_kpa)}`,
        }))}
        disabled={readOnly}
        onChange={(gauge) => put({ gauge })}
      />
      {findings}
      {plan?.cells.map((cell) => (
        <CellFigures key={cell.cell} plan={plan} cell={cell} />
      ))}
      <Methods />
      <Folded
        title={proof.braces ? `Bars clamped on: ${proof.braces}` : 'Bars, hoses, parts inside'}
        open={proof.braces > 0}
      >
        <Box sx={pair}>
          <Choice
            label="Bars clamped on"
            value={String(proof.braces)}
            options={['0', '1', '2', '3', '4', '5', '6']}
            disabled={readOnly}
            onChange={(braces) => put({ braces: Number(braces) })}
          />
          <VolumeField
            label="Hoses and gauge"
            path="proof.hoses_l"
            value={proof.hoses_l}
            disabled={readOnly}
            onCommit={(hoses_l) => put({ hoses_l: hoses_l ?? 0 })}
          />
          <VolumeField
            label="Parts fitted inside"
            path="proof.parts_l"
            value={proof.parts_l}
            disabled={readOnly}
            onCommit={(parts_l) => put({ parts_l: parts_l ?? 0 })}
          />
          <Toggle
            label="Foam is in"
            checked={proof.foam_in}
            disabled={readOnly}
            onChange={(foam_in) => put({ foam_in })}
          />
        </Box>
      </Folded>
      {build && (
        <Button component={Link} to={`/floor/${build.job_number}?design=${designId}`} variant="outlined">
          Open at the bench, for a phone
        </Button>
      )}
      <Papers station="proof" />
    </>
  )
}
