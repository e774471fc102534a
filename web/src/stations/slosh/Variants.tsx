import { Box, Button, Chip } from '@mui/material'
import { useState } from 'react'
import * as declared from '../../api/declared'
import { Choice } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Block, Sheet } from '../Board'
import { type Against, moneyText, type StudyRow, useComparable, useStudy } from './study'
import { StudyProgress } from './StudyProgress'

const keyOf = (one: Against) => `${one.design_id} ${one.revision}`

/** The same lap with other baffles, side by side with their price. */
export function Variants() {
  const units = useUnits()
  const readOnly = useWork((work) => work.readOnly)
  const work = useStudy('insides')
  const { study, stale, take } = work
  const rows = study?.rows ?? []
  const comparable = useComparable()
  const [against, setAgainst] = useState<Against[]>([])
  const priced = rows.some((row) => row.money !== null)
  const timed = rows.some((row) => row.hours !== null)
  const left = comparable.filter((one) => !against.some((other) => keyOf(other) === keyOf(one)))
  const first = rows.find((row) => row.number === 0)
  /** The drawn tank's own figure; the others' against it. */
  const besideFirst = (of: (row: StudyRow) => number | null, text: (value: number) => string) => (row: StudyRow) => {
    const [value, base] = [of(row), first ? of(first) : null]
    if (value === null) return ''
    if (row === first || base === null) return text(value)
    return Math.abs(value - base) < 0.005 ? '–' : `${value > base ? '+' : '−'}${text(Math.abs(value - base))}`
  }
  const figures = [
    (row: StudyRow) => units.number(row.dry_s, 2),
    (row: StudyRow) => (row.lowest_l === null ? 'never' : units.volume(row.lowest_l, 1)),
    besideFirst(
      (row) => row.brimful_l,
      (value) => units.volume(value),
    ),
    besideFirst(
      (row) => row.empty_kg,
      (value) => units.amount('kg', value, 1),
    ),
    besideFirst(
      (row) => row.weld_m,
      (value) => units.amount('m', value),
    ),
    ...(timed
      ? [
          besideFirst(
            (row) => row.hours,
            (value) => units.number(value, 1),
          ),
        ]
      : []),
    ...(priced ? [(row: StudyRow) => moneyText(units, row.money, study?.currency ?? '')] : []),
  ]
  return (
    <Block
      title="Design variants on the same lap"
      about="Each replaces the baffles that are drawn, or adds to them what it says; tried baffles are opened by the house rule. Under each stands what the rules hold against it. Litres, metal and weld are against the tank as drawn, hours are those of its seams; money is all of it, by the workshop’s prices."
    >
      {comparable.length > 0 && (
        <Box
          sx={{
            display: 'flex',
            gap: 1,
            flexWrap: 'wrap',
            alignItems: 'center',
            mt: 1,
            '& .MuiTextField-root': { width: 320 },
          }}
        >
          <Choice
            label="Also compare with"
            value=""
            options={[
              { value: '', label: left.length ? 'choose one' : 'all are chosen' },
              ...left.map((one) => ({ value: keyOf(one), label: one.name })),
            ]}
            disabled={readOnly || !left.length || against.length >= declared.StudyIn.most.against}
            onChange={(key) => setAgainst([...against, ...left.filter((one) => keyOf(one) === key)])}
          />
          {against.map((one) => (
            <Chip
              key={keyOf(one)}
              label={one.name}
              onDelete={() => setAgainst(against.filter((other) => other !== one))}
            />
          ))}
        </Box>
      )}
      <StudyProgress
        {...work}
        label="Run variants"
        onStart={() => work.start.mutate({ against })}
        disabled={readOnly}
      />
      {rows.length > 0 && (
        <Sheet
          label="Design variants on the same lap"
          columns={[
            { name: 'Inside' },
            { name: 'dry, s', right: true },
            { name: `lowest start, ${units.volumeUnit}`, right: true },
            { name: `holds, ${units.volumeUnit}`, right: true },
            { name: `metal, ${units.unit('kg')}`, right: true },
            { name: `weld, ${units.unit('m')}`, right: true },
            ...(timed ? [{ name: 'hours', right: true }] : []),
            ...(priced ? [{ name: 'money', right: true }] : []),
            { name: '' },
          ]}
          rows={rows.map((row) => ({
            key: `${row.number}`,
            strong: row.number === study?.favoured,
            cells: [
              <Named key="name" row={row} />,
              ...(row.problem ? figures.map(() => '') : figures.map((figure) => figure(row))),
              row.changes && !row.problem ? (
                <Button disabled={readOnly || stale} onClick={() => take.mutate(row)}>
                  Apply
                </Button>
              ) : (
                ''
              ),
            ],
          }))}
        />
      )}
    </Block>
  )
}

/** What it is, and what the rules hold against it. */
function Named({ row }: { row: StudyRow }) {
  const units = useUnits()
  const name = units
    .inText(row.problem ? `${row.name}: ${row.problem}` : row.name)
    .replace(/(\d) (?=mm\b|L\b|\d+\/\d)/g, '$1\u00a0')
  return (
    <>
      {name}
      {row.breaks.length > 0 && (
        <Box component="span" sx={{ display: 'block', color: 'text.secondary', fontSize: 13 }} data-breaks>
          {row.breaks.map((said) => units.say(said)).join('; ')}
        </Box>
      )}
    </>
  )
}
