import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build, FillStep } from '../../api/model'
import { QuantityField, VolumeField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { pourOf, record } from '../build'

/** A step of the fill: where level and needle should stand, what was poured, what was read. */
export function Pour({ build, fill, mayWrite }: { build: Build; fill: FillStep; mayWrite: boolean }) {
  const { inks } = useTheme()
  const units = useUnits()
  const done = build.state.commission.poured.find((one) => one.step === pourOf(fill))?.poured
  const [litres, setLitres] = useState<number | null>(null)
  const [ohms, setOhms] = useState<Record<string, number>>({})
  const isDry = fill.litres === 0
  const isRead = fill.needles.every((needle) => ohms[needle.sender] !== undefined)
  const over = litres !== null && litres > fill.holds_l
  return (
    <Box data-pour={fill.id} sx={{ border: `2px solid ${inks.hand}`, p: 1.5, display: 'grid', gap: 1.25 }}>
      <Box>
        {isDry
          ? 'Nothing in it yet: what does the gauge say?'
          : `The level should stand ${units.lengthUnitText(fill.level_mm)} over the lowest place inside`}
        {fill.needles.map((needle) => (
          <Box key={needle.sender}>
            {needle.name}: {units.quantity('ohm', needle.ohms)}, needle at {Math.round(100 * needle.share)} % of its
            travel
          </Box>
        ))}
      </Box>
      {fill.needles[0] && (
        <NeedleScale share={fill.needles[0].share} read={shareRead(fill, done?.ohms?.[fill.needles[0].sender])} />
      )}
      {done && (
        <Box sx={{ color: inks.good }}>
          {isDry ? 'Read empty' : `Poured ${units.volumeUnitText(done.litres)} in all`}
          {fill.needles.map((needle) => {
            const read = done.ohms?.[needle.sender]
            return read === undefined ? '' : `; ${needle.name} read ${units.quantity('ohm', read)}`
          })}
        </Box>
      )}
      {mayWrite && (
        <>
          {!isDry && (
            <VolumeField
              label={`In the ${fill.cell} now, all that was poured`}
              value={litres}
              fault={over ? `The ${fill.cell} holds ${units.volumeUnitText(fill.holds_l)}` : undefined}
              onCommit={setLitres}
            />
          )}
          {fill.needles.map((needle) => (
            <QuantityField
              key={needle.sender}
              of="ohm"
              label={`${needle.name} reads`}
              value={ohms[needle.sender] ?? null}
              onCommit={(value) =>
                setOhms(Object.fromEntries(Object.entries({ ...ohms, [needle.sender]: value }).filter(isTyped)))
              }
            />
          ))}
          <Button
            variant="contained"
            sx={{ minHeight: 56 }}
            disabled={isDry ? !isRead : litres === null || over}
            onClick={() => {
              void record(build, {
                kind: 'poured',
                subject: pourOf(fill),
                litres: isDry ? 0 : litres,
                ohms,
              })
              setLitres(null)
              setOhms({})
            }}
          >
            {isDry ? 'Record as read empty' : 'Record as poured'}
          </Button>
        </>
      )}
    </Box>
  )
}

/** How far of its travel the needle stands by the ohms that were read. */
function shareRead(fill: FillStep, ohms: number | undefined): number | null {
  const needle = fill.needles[0]
  if (ohms === undefined || !needle) return null
  return (ohms - needle.ohms_empty) / (needle.ohms_full - needle.ohms_empty)
}

const isTyped = (entry: [string, number | null]): entry is [string, number] => entry[1] !== null

const WIDE = 260

/** The needle's travel as a line: where it should stand, and where it stood. */
function NeedleScale({ share, read }: { share: number; read: number | null }) {
  const { inks } = useTheme()
  const at = (value: number) => 10 + Math.min(1, Math.max(0, value)) * (WIDE - 20)
  return (
    <svg viewBox={`0 0 ${WIDE} 44`} width="100%" role="img" aria-label="Needle, from empty to full">
      <path d={`M10 22H${WIDE - 10}`} stroke={inks.ink} strokeWidth={1.5} />
      {[0, 0.25, 0.5, 0.75, 1].map((tick) => (
        <path key={tick} d={`M${at(tick)} 16v12`} stroke={inks.ink} strokeWidth={1} />
      ))}
      <text x={10} y={42} fontSize={11} fill={inks.ink}>
        empty
      </text>
      <text x={WIDE - 10} y={42} fontSize={11} textAnchor="end" fill={inks.ink}>
        full
      </text>
      <path d={`M${at(share) - 6} 4h12l-6 12z`} fill={inks.hand} />
      {read !== null && <path d={`M${at(read)} 8v28`} stroke={inks.good} strokeWidth={3} />}
    </svg>
  )
}
