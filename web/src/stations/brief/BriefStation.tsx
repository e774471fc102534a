import { Box, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import * as declared from '../../api/declared'
import type { Brief } from '../../api/model'
import { Choice, MaybeChoice, QuantityField, ShareField, Toggle, VolumeField } from '../../fields/fields'
import { WordsField } from '../../fields/WordsField'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'
import { pair } from '../Row'
import { CaseFields } from './CaseFields'
import { setBrief } from './edits'
import { PumpFields } from './PumpFields'
import { RuleCard } from './RuleCard'
import { LinkedTanks, SurgeFields } from './SurgeFields'

type Basis = NonNullable<Brief['basis']>
const FRESH: Basis = { ...declared.Basis.defaults, kind: 'run time' }

export function BriefStation({ findings }: { findings: ReactNode }) {
  const brief = useWork((work) => work.design.brief)
  const readOnly = useWork((work) => work.readOnly)
  return (
    <>
      <Choice
        label="Fuel"
        value={brief.fuel}
        options={declared.Brief.choices.fuel}
        onChange={(fuel) => setBrief({ fuel })}
        disabled={readOnly}
      />
      <TargetFields brief={brief} readOnly={readOnly} />
      <Reason key={brief.reason} value={brief.reason} disabled={readOnly} />
      <Toggle
        label="Surge tank"
        checked={brief.is_surge_tank}
        disabled={readOnly}
        onChange={(is_surge_tank) => setBrief({ is_surge_tank })}
      />
      <Against />
      <LinkedTanks />
      {findings}
      <Folded title={brief.cases.length ? `Demand, ${brief.cases.length}` : 'Demand of the engine'} open>
        <CaseFields brief={brief} readOnly={readOnly} />
      </Folded>
      <Folded title={brief.pumps.length ? `Pumps, ${brief.pumps.length}` : 'Pumps'} open={brief.pumps.length > 0}>
        <PumpFields brief={brief} readOnly={readOnly} />
      </Folded>
      <Folded title="Surge" open={Boolean(brief.surge)}>
        <SurgeFields brief={brief} readOnly={readOnly} />
      </Folded>
      <Folded title={brief.card.length ? `Rule card, ${brief.card.length}` : 'Rule card'} open={brief.card.length > 0}>
        <RuleCard brief={brief} readOnly={readOnly} />
      </Folded>
      <QuantityField
        label="Vehicle without fuel"
        of="kg"
        value={brief.vehicle_kg ?? null}
        emptyText="not said"
        hint="for the fuel’s share of its mass"
        path="brief.vehicle_kg"
        disabled={readOnly}
        onCommit={(vehicle_kg) => setBrief({ vehicle_kg })}
      />
    </>
  )
}

/** A named figure, or what a run time, a range or a stint comes to. */
function TargetFields({ brief, readOnly }: { brief: Brief; readOnly: boolean }) {
  const target = useWork((work) => work.evaluation?.brief?.target)
  const units = useUnits()
  const { basis } = brief
  const set = (part: Partial<Basis>) => setBrief({ basis: { ...(basis ?? FRESH), ...part } })
  return (
    <>
      <MaybeChoice
        label="Target set by"
        value={basis?.kind}
        options={declared.Basis.choices.kind}
        none="the customer’s figure"
        disabled={readOnly}
        onChange={(kind) =>
          kind === null ? setBrief({ basis: null }) : setBrief({ target_l: null, basis: { ...(basis ?? FRESH), kind } })
        }
      />
      {!basis && (
        <VolumeField
          label="Target, rated capacity"
          value={brief.target_l ?? null}
          emptyText="none yet"
          path="brief.target_l"
          hint="What has to go in with room left to expand"
          onCommit={(value) => setBrief({ target_l: value })}
          disabled={readOnly}
        />
      )}
      {basis && (
        <Box sx={pair}>
          {basis.kind === 'run time' && (
            <QuantityField
              label="Run time"
              of="h"
              value={basis.hours ?? null}
              emptyText="not said"
              path="brief.basis.hours"
              disabled={readOnly}
              onCommit={(hours) => set({ hours })}
            />
          )}
          {basis.kind === 'stint' && (
            <QuantityField
              label="Stint"
              of="min"
              value={basis.stint_min ?? null}
              emptyText="not said"
              path="brief.basis.stint_min"
              disabled={readOnly}
              onCommit={(stint_min) => set({ stint_min })}
            />
          )}
          {basis.kind === 'range' && (
            <>
              <QuantityField
                label="Range"
                of="km"
                value={basis.range_km ?? null}
                emptyText="not said"
                path="brief.basis.range_km"
                disabled={readOnly}
                onCommit={(range_km) => set({ range_km })}
              />
              <VolumeField
                label="Consumption per 100 km"
                value={basis.per_100km_l ?? null}
                emptyText="not said"
                path="brief.basis.per_100km_l"
                disabled={readOnly}
                onCommit={(per_100km_l) => set({ per_100km_l })}
              />
            </>
          )}
          <ShareField
            label="Reserve margin"
            value={basis.reserve}
            disabled={readOnly}
            onCommit={(reserve) => reserve !== null && set({ reserve })}
          />
        </Box>
      )}
      {basis && (
        <Typography variant="body2" data-target>
          {target ? (
            <>
              <strong>{units.volumeUnitText(target.litres)}</strong>: {units.say(target.how)}.
            </>
          ) : basis.kind === 'range' ? (
            'Type range and consumption for a target.'
          ) : (
            'Type the time here and the engine’s demand below for a target.'
          )}
        </Typography>
      )}
    </>
  )
}

function Against() {
  const figures = useWork((work) => work.evaluation?.shell?.figures)
  const target = useWork((work) => work.evaluation?.brief?.target?.litres ?? null)
  const units = useUnits()
  if (!figures || target === null) return null
  const off = figures.rated_l - target
  return (
    <Typography variant="body2" color="textSecondary">
      The tank as drawn is rated {units.volumeUnitText(figures.rated_l)}:{' '}
      {Math.abs(off) < 0.005
        ? 'just the target.'
        : `${units.volumeUnitText(Math.abs(off))} ${off < 0 ? 'less' : 'more'} than asked.`}
    </Typography>
  )
}

function Reason({ value, disabled }: { value: string; disabled: boolean }) {
  return (
    <WordsField
      label="Reason for the target"
      lines={2}
      mayBeEmpty
      value={value}
      most={declared.Brief.most.reason}
      disabled={disabled}
      hint="Range, hours, a stint, or the customer’s own figure"
      onCommit={(reason) => setBrief({ reason })}
    />
  )
}
