import { Box, ButtonBase, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useEffect, useRef } from 'react'
import type { Schemas } from '../../api/client'
import type { Patch } from '../../api/model'
import { isNumber } from '../../units/number'
import { useUnits } from '../../units/useUnits'
import { applyPatch, useWork } from '../../work/store'

type Scheme = Schemas['Scheme']

const WIDE = 196
const SKETCH = { wide: 60, high: 40 }

/** Ways to make the shell, side by side: a press makes it so; what this shop can't make is crossed out, with the reason. */
export function SchemeRow() {
  const schemes = useWork((work) => work.evaluation?.sheet?.schemes)
  const readOnly = useWork((work) => work.readOnly)
  const { inks } = useTheme()
  if (!schemes?.length) return null
  const rank = (scheme: Scheme) => (scheme.favoured ? 0 : scheme.stops.length ? 2 : 1)
  const ranked = [...schemes].sort((a, b) => rank(a) - rank(b))
  return (
    <Box
      component="section"
      aria-label="Ways to make it"
      tabIndex={0}
      sx={{
        display: 'flex',
        overflowX: 'auto',
        borderBottom: `1px solid ${inks.line}`,
        background: inks.paper,
        flex: 'none',
      }}
    >
      {ranked.map((scheme) => (
        <Card key={scheme.title} scheme={scheme} readOnly={readOnly} />
      ))}
    </Box>
  )
}

function Card({ scheme, readOnly }: { scheme: Scheme; readOnly: boolean }) {
  const { inks } = useTheme()
  const units = useUnits()
  const stop = scheme.stops[0]
  const card = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    if (scheme.chosen) card.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }, [scheme.chosen])
  const facts = [
    `${units.quantity('m', scheme.weld_m)} weld, ${units.amount('m', scheme.floor_m)} at the floor`,
    `${scheme.bends} bends, ${scheme.parts} parts`,
    isNumber(scheme.heat_mm) ? `nearest weld ${units.lengthUnitText(scheme.heat_mm)} from heat` : '',
    [
      isNumber(scheme.mass_kg) ? units.quantity('kg', scheme.mass_kg) : '',
      isNumber(scheme.minutes) ? `${units.number(scheme.minutes / 60, 1)} h` : '',
      isNumber(scheme.money) ? `${units.number(scheme.money, 0)} ${scheme.currency}`.trim() : '',
    ]
      .filter(Boolean)
      .join(', '),
  ]
  return (
    <ButtonBase
      ref={card}
      data-scheme={scheme.title}
      aria-pressed={scheme.chosen}
      disabled={readOnly}
      onClick={() => applyPatch(scheme.patch as Patch)}
      sx={{
        width: WIDE,
        flex: 'none',
        px: 1.25,
        py: 1,
        display: 'flex',
        flexDirection: 'column',
        alignItems: 'stretch',
        justifyContent: 'flex-start',
        textAlign: 'left',
        borderRight: `1px solid ${inks.line}`,
        background: scheme.chosen ? inks.handFill : 'transparent',
        boxShadow: scheme.chosen ? `inset 0 4px 0 ${inks.hand}` : undefined,
        '&:focus-visible': { outline: `2px solid ${inks.hand}`, outlineOffset: -2 },
      }}
    >
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-start', minHeight: SKETCH.high }}>
        <Sketch scheme={scheme} />
        <Typography
          sx={{ fontSize: 13, fontWeight: 650, lineHeight: 1.2, textDecoration: stop ? 'line-through' : 'none' }}
        >
          {scheme.title}
        </Typography>
      </Box>
      {facts.filter(Boolean).map((fact) => (
        <Typography key={fact} sx={{ fontSize: 12, lineHeight: 1.35 }}>
          {fact}
        </Typography>
      ))}
      {scheme.why && (
        <Typography sx={{ fontSize: 12, fontWeight: 700, lineHeight: 1.3, color: inks.hand }}>
          The figures favour it: {units.say(scheme.why)}
        </Typography>
      )}
      {stop && (
        <Typography sx={{ fontSize: 12, lineHeight: 1.3, color: inks.stop }}>
          {units.say(stop)}
          {scheme.remedy && `. What would do: ${units.say(scheme.remedy)}`}
        </Typography>
      )}
    </ButtonBase>
  )
}

/** The shell seen from behind on the right, above: welds heavy, bends light. */
function Sketch({ scheme }: { scheme: Scheme }) {
  const { inks } = useTheme()
  const flat = ({ x, y, z }: { x: number; y: number; z: number }) => [(x - y) * 0.866, -(x + y) * 0.4 - z] as const
  const lines = scheme.sketch.map(({ start, end, joint }) => ({ from: flat(start), to: flat(end), joint }))
  const across = lines.flatMap(({ from, to }) => [from[0], to[0]])
  const up = lines.flatMap(({ from, to }) => [from[1], to[1]])
  const [left, top] = [Math.min(...across), Math.min(...up)]
  const scale = Math.min(
    (SKETCH.wide - 8) / (Math.max(...across) - left || 1),
    (SKETCH.high - 8) / (Math.max(...up) - top || 1),
  )
  const place = ([a, b]: readonly [number, number]) => [4 + (a - left) * scale, 4 + (b - top) * scale] as const
  return (
    <svg width={SKETCH.wide} height={SKETCH.high} aria-hidden="true" style={{ display: 'block', flex: 'none' }}>
      {lines.map(({ from, to, joint }, n) => {
        const [[x1, y1], [x2, y2]] = [place(from), place(to)]
        const welded = joint === 'weld'
        return (
          <line
            key={n}
            x1={x1}
            y1={y1}
            x2={x2}
            y2={y2}
            stroke={welded ? inks.ink : inks.metal}
            strokeWidth={welded ? 2 : 1}
            strokeDasharray={welded ? undefined : '3 2'}
          />
        )
      })}
    </svg>
  )
}
