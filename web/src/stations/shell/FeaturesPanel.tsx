import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import * as declared from '../../api/declared'
import type { Feature, Shell } from '../../api/model'
import { changeFeature, setShell } from '../../drawing/edits'
import { BentFromOneSheet } from './BentFromOneSheet'
import { PlateTabs } from './PlateTabs'
import { Choice, LengthField, Toggle } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { BaffleOpenings } from './BaffleOpenings'
import { addFeature, NAMES } from './freshFeature'
import { PotDoors } from './PotDoors'
import { useUnits } from '../../units/useUnits'
import { select, useFault, useWork } from '../../work/store'

interface Props {
  shell: Shell
  kinds: readonly Feature['kind'][]
  /** Said while there is none of them. */
  empty: string
  readOnly: boolean
}

/** Features of some kinds: what each costs, and its sizes when it is at hand. */
export function FeaturesPanel({ shell, kinds, empty, readOnly }: Props) {
  const chosen = useWork((work) => (work.at?.kind === 'feature' ? work.at.id : null))
  return (
    <>
      {shell.features.map(
        (feature, place) =>
          kinds.includes(feature.kind) && (
            <FeatureRow
              key={feature.id}
              feature={feature}
              place={place}
              shell={shell}
              chosen={feature.id === chosen}
              readOnly={readOnly}
            />
          ),
      )}
      {!shell.features.some((feature) => kinds.includes(feature.kind)) && (
        <Typography variant="body2" color="textSecondary">
          {empty}
        </Typography>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {kinds.map((kind) => (
          <Button
            key={kind}
            variant="outlined"
            disabled={readOnly || shell.features.length >= declared.BoxShell.most.features}
            onClick={() => addFeature(kind)}
          >
            Add a {NAMES[kind]}
          </Button>
        ))}
      </Box>
    </>
  )
}

function FeatureRow({
  feature,
  place,
  shell,
  chosen,
  readOnly,
}: {
  feature: Feature
  place: number
  shell: Shell
  chosen: boolean
  readOnly: boolean
}) {
  const { inks } = useTheme()
  const units = useUnits()
  const cost = useWork((work) => work.evaluation?.shell?.features?.find((item) => item.id === feature.id))
  const fault = useFault(`shell.features.${place}`)?.message
  const signed = (value: number, text: string) => `${value < 0 ? '−' : '+'}${text}`
  return (
    <Box sx={{ border: `1px solid ${chosen ? inks.hand : inks.line}`, p: 1 }} data-feature-row={feature.id}>
      <Button
        fullWidth
        onClick={() => select(chosen ? null : { kind: 'feature', id: feature.id })}
        aria-expanded={chosen}
        sx={{ justifyContent: 'space-between', color: 'text.primary', px: 0.5 }}
      >
        <span style={{ textAlign: 'left' }}>{feature.name}</span>
        <span style={{ fontWeight: 500, fontSize: 13, textAlign: 'right' }} data-cost>
          {cost
            ? `${signed(cost.litres, units.volumeUnitText(Math.abs(cost.litres)))}, ${signed(cost.metal_kg, units.quantity('kg', Math.abs(cost.metal_kg)))}, ${units.quantity('m', cost.weld_m)} weld`
            : ''}
        </span>
      </Button>
      {fault && (
        <Typography variant="body2" color="error">
          {units.inText(fault)}
        </Typography>
      )}
      {chosen && <FeatureFields feature={feature} place={place} shell={shell} readOnly={readOnly} />}
    </Box>
  )
}

type FieldSpec = [string, string]

/** Which lengths a feature has, as people say them. */
function lengthsOf(feature: Feature): FieldSpec[] {
  switch (feature.kind) {
    case 'well':
    case 'sump': {
      const face = feature.kind === 'sump' ? 'floor' : feature.face
      const [first, second] =
        face === 'roof' || face === 'floor'
          ? ['rear', 'right']
          : face === 'front' || face === 'rear'
            ? ['right', 'floor']
            : ['rear', 'floor']
      const round = feature.form === 'round'
      return [
        ['a_mm', `From ${first}`],
        ['b_mm', `From ${second}`],
        ['long_mm', round ? 'Diameter' : first === 'rear' ? 'Length' : 'Width'],
        ...(round ? [] : [['wide_mm', second === 'right' ? 'Width' : 'Height'] as FieldSpec]),
        ['deep_mm', feature.kind === 'sump' ? 'Hangs by' : 'Depth'],
        ['slope_mm', 'Sides lean in by'],
      ]
    }
    case 'relief':
      return [
        ['x_mm', 'From rear'],
        ['length_mm', 'Length'],
        ['y_mm', 'From right'],
        ['width_mm', 'Width'],
        ['z_mm', 'From floor'],
        ['height_mm', 'Height'],
      ]
    case 'roof step':
      return [
        ['reach_mm', 'Goes in by'],
        ['drop_mm', 'Lowered by'],
      ]
    case 'partition':
      return [['at_mm', feature.axis === 'x' ? 'From rear' : 'From right']]
    case 'baffle':
      return [
        ['at_mm', feature.axis === 'x' ? 'From rear' : 'From right'],
        ['corner_mm', 'Corners cut off by'],
        ['top_gap_mm', 'Gap over it'],
        ...(feature.top_gap_mm || feature.hem_mm ? [['hem_mm', 'Hem on its free top'] as FieldSpec] : []),
      ]
    case 'pot':
      return [
        ['a_mm', 'From rear'],
        ['b_mm', 'From right'],
        ['long_mm', feature.form === 'round' ? 'Diameter' : 'Length'],
        ...(feature.form === 'round' ? [] : [['wide_mm', 'Width'] as FieldSpec]),
        ['high_mm', 'Rim above floor'],
        ...(feature.form === 'round' ? [] : [['hem_mm', 'Hem round its rim'] as FieldSpec]),
      ]
  }
}

function FeatureFields({
  feature,
  place,
  shell,
  readOnly,
}: {
  feature: Feature
  place: number
  shell: Shell
  readOnly: boolean
}) {
  const set = (part: Record<string, unknown>) => changeFeature(feature.id, part)
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.5, mt: 1 }}>
      <NameField value={feature.name} disabled={readOnly} onCommit={(name) => set({ name })} />
      {feature.kind === 'well' && (
        <Choice
          label="Face"
          value={feature.face}
          options={declared.Well.choices.face}
          disabled={readOnly}
          onChange={(face) => set({ face })}
        />
      )}
      {(feature.kind === 'well' || feature.kind === 'sump' || feature.kind === 'pot') && (
        <Choice
          label="Form"
          value={feature.form}
          options={[
            { value: 'box', label: 'rectangular' },
            { value: 'round', label: 'round' },
          ]}
          disabled={readOnly}
          onChange={(form) => set({ form })}
        />
      )}
      {feature.kind === 'relief' && (
        <Choice
          label="Form"
          value={feature.form}
          options={[
            { value: 'box', label: 'rectangular' },
            { value: 'x', label: 'round, lengthwise' },
            { value: 'y', label: 'round, across' },
            { value: 'z', label: 'round, upright' },
          ]}
          disabled={readOnly}
          onChange={(form) => set({ form })}
        />
      )}
      {feature.kind === 'roof step' && (
        <Choice
          label="Side"
          value={feature.side}
          options={declared.RoofStep.choices.side}
          disabled={readOnly}
          onChange={(side) => set({ side })}
        />
      )}
      {(feature.kind === 'partition' || feature.kind === 'baffle') && (
        <Choice
          label="Direction"
          value={feature.axis}
          options={[
            { value: 'x', label: 'across the tank' },
            { value: 'y', label: 'lengthwise' },
          ]}
          disabled={readOnly}
          onChange={(axis) => set({ axis })}
        />
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        {lengthsOf(feature).map(([field, label]) => (
          <LengthField
            key={field}
            label={label}
            value={(feature as unknown as Record<string, number>)[field] ?? 0}
            path={`shell.features.${place}.${field}`}
            disabled={readOnly}
            onCommit={(mm) => mm !== null && set({ [field]: mm })}
          />
        ))}
        {(feature.kind === 'partition' || feature.kind === 'baffle') && !feature.tabs && (
          <LengthField
            label="Flanges"
            value={feature.flange_mm ?? null}
            emptyText="usual"
            hint="empty: the house rule; 0: a flat plate"
            path={`shell.features.${place}.flange_mm`}
            disabled={readOnly}
            onCommit={(flange_mm) => set({ flange_mm })}
          />
        )}
      </Box>
      {(feature.kind === 'partition' || feature.kind === 'baffle') && (
        <PlateTabs plate={feature} place={place} readOnly={readOnly} />
      )}
      <BentFromOneSheet feature={feature} readOnly={readOnly} />
      {feature.kind === 'baffle' && <BaffleOpenings baffle={feature} place={place} readOnly={readOnly} />}
      {feature.kind === 'pot' && <PotDoors pot={feature} place={place} readOnly={readOnly} />}
      {feature.kind === 'well' && feature.face === 'roof' && (
        <Toggle
          label="Drain tube for rain"
          checked={feature.drain}
          disabled={readOnly}
          onChange={(drain) => set({ drain })}
        />
      )}
      <Button
        disabled={readOnly}
        onClick={() => {
          select(null)
          setShell({ features: shell.features.filter((item) => item.id !== feature.id) })
        }}
      >
        Remove {feature.name}
      </Button>
    </Box>
  )
}
