import { Box, ButtonBase, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Panel, PanelEdge } from '../../api/model'
import { setShell } from '../../drawing/edits'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { PanelFigure } from './PanelFigure'

/** Each flat panel: what it is, how its edges are held, the sheet it wants, and the pressure it bears in a leak test. */
export function PanelTable() {
  const panels = useWork((work) => work.evaluation?.shell?.panels) ?? []
  const proof = useWork((work) => work.evaluation?.shell?.safe_proof_kpa ?? null)
  const units = useUnits()
  const [open, setOpen] = useState<string | null>(null)
  const weakest = panels.reduce<Panel | null>(
    (least, panel) => (least === null || panel.proof_kpa < least.proof_kpa ? panel : least),
    null,
  )
  return (
    <>
      {proof !== null && weakest && (
        <Typography variant="body2">
          Leak test at no more than <strong>{units.quantity('kpa', proof)}</strong>:{' '}
          {proof < weakest.proof_kpa ? 'every panel bears it' : `the ${weakest.name} gives first`}, at{' '}
          {units.number(weakest.allowed_share * 100, 0)} % of the yield beside a weld (house rule), never above{' '}
          {units.quantity('kpa', 20)}. Use a relief or a water column as limiter; never test a tank that holds vapour.
        </Typography>
      )}
      <Box component="ul" aria-label="Panels under fuel" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {panels.map((panel) => (
          <PanelRow
            key={panel.name}
            panel={panel}
            open={open === panel.name}
            onOpen={() => setOpen(open === panel.name ? null : panel.name)}
          />
        ))}
      </Box>
      <Typography variant="body2" color="textSecondary">
        Hatched edges can’t turn: the sheet goes on round a bend or over a plate. Edges on rollers can: they are welded
        from one side. Past half its thickness a panel is stiffer than the plain sum says: the bow shown then counts its
        stretching.
      </Typography>
    </>
  )
}

function PanelRow({ panel, open, onOpen }: { panel: Panel; open: boolean; onOpen: () => void }) {
  const units = useUnits()
  const { inks } = useTheme()
  const thin = panel.least_thickness_mm > panel.thickness_mm + 1e-6
  return (
    <Box component="li" sx={{ borderTop: `1px solid ${inks.line}` }}>
      <ButtonBase
        aria-expanded={open}
        onClick={onOpen}
        sx={{ width: '100%', minHeight: 56, py: 0.75, gap: 1, justifyContent: 'flex-start', textAlign: 'left' }}
      >
        <Box sx={{ width: 64, display: 'flex', justifyContent: 'center', flex: 'none' }}>
          <PanelFigure panel={panel} reach={44} />
        </Box>
        <Box sx={{ flex: 1 }}>
          <Typography variant="body2" sx={{ fontWeight: 650 }}>
            {panel.name}
            {panel.swaged ? ', swaged' : ''}
          </Typography>
          <Typography variant="body2" color="textSecondary">
            {panel.what}, {units.length(panel.first_mm)} × {units.length(panel.second_mm)}
          </Typography>
        </Box>
        <Box sx={{ textAlign: 'right' }}>
          <Typography variant="body2" sx={{ fontWeight: 650 }}>
            {units.quantity('kpa', panel.proof_kpa)}
          </Typography>
          <Typography variant="body2" color={thin ? 'warning' : 'textSecondary'}>
            {thin
              ? units.say({ text: 'wants {least_sheet}', values: { least_sheet: panel.least_thickness_mm } })
              : `${units.number(panel.stress_share * 100, 0)} % of yield`}
          </Typography>
        </Box>
      </ButtonBase>
      {open && <PanelAtHand panel={panel} />}
    </Box>
  )
}

/** One panel with its edges, each of which can be held otherwise than its joint says. */
function PanelAtHand({ panel }: { panel: Panel }) {
  const units = useUnits()
  const readOnly = useWork((work) => work.readOnly)
  const held = useWork((work) => work.design.shell?.edges) ?? []
  const turn = (edge: PanelEdge) => {
    const others = held.filter((own) => own.panel !== panel.name || own.beside !== edge.beside)
    const other = edge.held === 'clamped' ? 'simply supported' : 'clamped'
    setShell({
      edges:
        others.length < held.length ? others : [...others, { panel: panel.name, beside: edge.beside, held: other }],
    })
  }
  return (
    <Box sx={{ pb: 1.5, display: 'flex', flexDirection: 'column', gap: 1 }}>
      {panel.edges.length > 0 && (
        <Box sx={{ display: 'flex', justifyContent: 'center' }}>
          <PanelFigure panel={panel} reach={130} onEdge={readOnly ? undefined : turn} />
        </Box>
      )}
      <Typography variant="body2">
        {units.say(panel.load)}: {units.quantity('kpa', panel.pressure_kpa)}, {units.quantity('mpa', panel.stress_mpa)}{' '}
        or {units.number(panel.stress_share * 100, 0)} % of the yield beside a weld, where{' '}
        {units.number(panel.allowed_share * 100, 0)} % is allowed.
      </Typography>
      <Typography variant="body2">
        {units.say({
          text: 'Sheet {is_sheet}, wants {wants_sheet}; bows {bows_sheet}.',
          values: {
            is_sheet: panel.thickness_mm,
            wants_sheet: panel.least_thickness_mm,
            bows_sheet: panel.small_deflection_exceeded ? panel.large_deflection_mm : panel.deflection_mm,
          },
        })}
      </Typography>
      {panel.edges.length > 0 && (
        <Typography variant="body2" color="textSecondary">
          {panel.edges.map((edge) => `${edge.beside}: ${edge.joint}, ${edge.held}`).join(' · ')}.{' '}
          {readOnly ? '' : 'Press an edge to have it held the other way, as when it is welded inside too.'}
        </Typography>
      )}
    </Box>
  )
}
