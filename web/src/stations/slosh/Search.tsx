import { Alert, Box, Button, Checkbox, FormControlLabel, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import { within } from '../../fields/choices'
import { Choice, LengthField, NumberField, VolumeField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Block, Sheet } from '../Board'
import { askOf, counted, possibleWays, runsOf, type Way } from './ask'
import { setPlaces, setWay, useAsk } from './asking'
import { PlaceMap } from './PlaceMap'
import { useRun } from './slosh'
import { moneyText, type Study, type StudyRow, useStudy } from './study'
import { StudyProgress } from './StudyProgress'

const SAID: Record<Way, string> = {
  plates_across: 'Baffles across',
  plates_along: 'Baffles lengthwise',
  corner_mm: 'Cut-off corners of the baffles',
  notch_mm: 'Notches in their feet, three in each',
  door_mm: 'One-way doors in them, towards the pickup',
  plate_at_mm: 'Place of the first baffle drawn',
  pot_mm: 'Pot round the pickup, its sides',
  sump_deep_mm: 'Depth of the sump',
  surge_l: 'Surge tank',
}
const MOST_RUNS = 600
const BEST = 10

/** Design search: what may be varied, every choice tried with every other, and which costs least of those that run through. */
export function Search() {
  const units = useUnits()
  const asking = useAsk()
  const readOnly = useWork((work) => work.readOnly)
  const ways = possibleWays(useWork((work) => work.design))
  const start_l = useRun((state) => state.run?.start_l ?? 1)
  const work = useStudy('search')
  const usual = Math.round(start_l * 10) / 10
  const ask = askOf(asking, usual, ways)
  const runs = runsOf(ask)
  const possible = runs >= 2 && runs <= MOST_RUNS
  return (
    <Block
      title="Design search"
      about="It tries every choice with every other on this lap, from the fill you name, and favours what runs through at the least weld, metal or money."
    >
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, my: 1.5, '& .MuiTextField-root': { width: 168 } }}>
        <VolumeField
          label="No dry spell down to"
          value={asking.down_to_l ?? usual}
          onCommit={(down_to_l) => useAsk.setState({ down_to_l })}
        />
        <Choice
          label="Minimise"
          value={asking.least}
          options={declared.Ask.choices.least}
          onChange={(least) => useAsk.setState({ least })}
        />
      </Box>
      <Box
        component="fieldset"
        sx={{
          border: 0,
          p: 0,
          m: 0,
          display: 'grid',
          gap: 1,
          gridTemplateColumns: 'minmax(200px, max-content) 1fr',
          alignItems: 'center',
          '& .MuiTextField-root': { width: 118 },
        }}
      >
        <Typography component="legend" variant="body2" sx={{ fontWeight: 600 }}>
          What may be varied
        </Typography>
        {ways.map((way) => (
          <WayFields key={way} way={way} />
        ))}
        <FormControlLabel
          control={
            <Checkbox checked={asking.places.on} onChange={(event) => setPlaces({ on: event.target.checked })} />
          }
          label="Place of the pickup"
        />
        {asking.places.on ? (
          <Box sx={{ display: 'flex', gap: 1 }}>
            <NumberField
              label="Places along"
              value={asking.places.along}
              onCommit={(along) => along !== null && setPlaces({ along: Math.round(along) })}
            />
            <NumberField
              label="Places across"
              value={asking.places.across}
              onCommit={(across) => across !== null && setPlaces({ across: Math.round(across) })}
            />
          </Box>
        ) : (
          <span />
        )}
      </Box>
      <Typography variant="body2" sx={{ mt: 1 }} data-runs>
        {possible
          ? `That makes ${runs} runs at most; choices that come to the same tank are run once.`
          : runs > MOST_RUNS
            ? `That makes ${runs} runs; at most ${MOST_RUNS} can be asked for: narrow something.`
            : 'Nothing is varied yet: choose what may be.'}
      </Typography>
      <StudyProgress
        {...work}
        label="Start search"
        onStart={() => work.start.mutate({ ask })}
        disabled={readOnly || !possible}
      />
      {work.study && work.study.rows.length > 0 && (
        <Found
          study={work.study}
          onTake={readOnly || work.stale ? null : (row) => work.take.mutate(row)}
          startText={units.volumeUnitText(work.study.ask?.down_to_l ?? 0)}
        />
      )}
    </Block>
  )
}

function WayFields({ way }: { way: Way }) {
  const varied = useAsk((asking) => asking.ways[way])
  const Field = way === 'surge_l' ? VolumeField : counted(way) ? NumberField : LengthField
  const whole = (value: number) =>
    counted(way) ? within(Math.round(value), declared.Counts.limits.high) : Math.max(0, value)
  return (
    <>
      <FormControlLabel
        control={<Checkbox checked={varied.on} onChange={(event) => setWay(way, { on: event.target.checked })} />}
        label={SAID[way]}
      />
      {varied.on ? (
        <Box sx={{ display: 'flex', gap: 1 }} role="group" aria-label={SAID[way]}>
          <Field
            label="from"
            value={varied.low}
            onCommit={(low) =>
              low !== null && setWay(way, { low: whole(low), high: Math.max(whole(low), varied.high) })
            }
          />
          <Field
            label="to"
            value={varied.high}
            onCommit={(high) =>
              high !== null && setWay(way, { high: whole(high), low: Math.min(whole(high), varied.low) })
            }
          />
          {!counted(way) && (
            <NumberField
              label="Steps"
              value={varied.steps}
              onCommit={(steps) =>
                steps !== null && setWay(way, { steps: within(Math.round(steps), declared.Span.limits.steps) })
              }
            />
          )}
        </Box>
      ) : (
        <span />
      )}
    </>
  )
}

function Found({
  study,
  onTake,
  startText,
}: {
  study: Study
  onTake: ((row: StudyRow) => void) | null
  startText: string
}) {
  const units = useUnits()
  const sound = study.rows.filter((row) => !row.problem)
  const through = sound.filter((row) => row.dry_s < 0.005)
  const price = (row: StudyRow) =>
    study.ask?.least === 'metal' ? row.empty_kg : study.ask?.least === 'money' ? (row.money ?? Infinity) : row.weld_m
  const order = [...sound].sort(
    (a, b) =>
      Number(b.number === study.favoured) - Number(a.number === study.favoured) ||
      Math.max(0, a.dry_s - 0.005) - Math.max(0, b.dry_s - 0.005) ||
      price(a) - price(b),
  )
  const priced = sound.some((row) => row.money !== null)
  const ways = Object.keys(NAMES).filter((way) => way in (order[0]?.choice ?? {}))
  return (
    <>
      <Alert severity={through.length ? 'success' : 'warning'} sx={{ maxWidth: 900 }}>
        {through.length
          ? `${through.length} of ${study.rows.length} tried run through from ${startText}.`
          : `None of ${study.rows.length} tried runs through from ${startText}; the least dry comes first.`}
        {study.advice && ` ${units.say(study.advice)}`}
        {sound.length < study.rows.length &&
          ` ${study.rows.length - sound.length} can’t be made or leave the pickup nowhere to stand.`}
      </Alert>
      <PlaceMap study={study} />
      <Sheet
        label="Design search results"
        columns={[
          ...ways.map((way) => ({ name: NAMES[way] ?? way, right: true })),
          { name: 'dry, s', right: true },
          { name: `holds, ${units.volumeUnit}`, right: true },
          { name: `metal, ${units.unit('kg')}`, right: true },
          { name: `weld, ${units.unit('m')}`, right: true },
          ...(priced ? [{ name: 'money', right: true }] : []),
          { name: '' },
        ]}
        rows={order.slice(0, BEST).map((row) => ({
          key: `${row.number}`,
          strong: row.number === study.favoured,
          cells: [
            ...ways.map((way) => chosen(units, way, row.choice[way] ?? 0)),
            units.number(row.dry_s, 2),
            units.volume(row.brimful_l),
            units.amount('kg', row.empty_kg, 1),
            units.amount('m', row.weld_m),
            ...(priced ? [moneyText(units, row.money, study.currency)] : []),
            <Button key="take" disabled={!onTake} onClick={() => onTake?.(row)}>
              Apply
            </Button>,
          ],
        }))}
      />
    </>
  )
}

const NAMES: Record<string, string> = {
  plates_across: 'across',
  plates_along: 'lengthwise',
  corner_mm: 'corners',
  notch_mm: 'notches',
  door_mm: 'doors',
  plate_at_mm: 'baffle at',
  pot_mm: 'pot',
  sump_deep_mm: 'sump',
  surge_l: 'surge',
  x_mm: 'from rear',
  y_mm: 'from right',
}

const NONE_AT_ZERO = new Set(['notch_mm', 'door_mm', 'pot_mm', 'surge_l'])

function chosen(units: ReturnType<typeof useUnits>, way: string, value: number) {
  if (value === 0 && NONE_AT_ZERO.has(way)) return 'none'
  if (way.endsWith('_mm')) return units.lengthUnitText(value)
  return way === 'surge_l' ? units.volumeUnitText(value) : `${value}`
}
