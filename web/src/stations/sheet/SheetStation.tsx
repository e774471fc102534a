import * as declared from '../../api/declared'
import type { Schemas } from '../../api/client'
import { Alert, Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import { labelled } from '../../fields/choices'
import { Choice, LengthField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'
import { Holes } from './Holes'
import { Papers } from '../../papers/Papers'
import { AsBuilt } from './AsBuilt'
import { setScheme } from './edits'
import { HALF, type SeamFace } from './seam'
import { Elsewhere } from './Questions'

type Sheet = Schemas['Sheet']

const SEAMS = labelled(declared.SheetScheme.choices.seam, {
  lid: 'along the lid',
  side: 'up a side',
  floor: 'along the floor (worst to leak)',
  'corner butt': 'at a lid corner, butted',
  'corner open': 'at a lid corner, open',
})

const SCHEMES = labelled(declared.SheetScheme.choices.scheme, {
  'wrapper and pans': 'wrapper and two inset pans',
  'wrapper and flat ends': 'wrapper and two flat ends',
  "two U's": 'two U’s, one upside down in the other',
  'tray and lid': 'tray and lid',
  'flat plates': 'six flat plates',
})
/** So few parts have their files in sight. */
const FEW_PARTS = 4
const HOW_ENDS = 'The ends are set in flush and welded round.'
const BUTT = 'Where plates are welded each stops at the other’s inside: the corner is open for the seam.'
const HOW: Record<string, string> = { "two U's": BUTT, 'tray and lid': BUTT }

export function SheetStation({ findings }: { findings: ReactNode }) {
  const scheme = useWork((work) => work.design.sheet)
  const made = useWork((work) => work.evaluation?.sheet?.unfolded ?? null)
  const shell = useWork((work) => work.design.shell)
  const readOnly = useWork((work) => work.readOnly)
  const units = useUnits()
  // A box has corners to close at; of another shell the core takes the lid then.
  const isBox = shell?.kind === 'box'
  const seams = isBox ? SEAMS : SEAMS.slice(0, 3)
  const closes = !isBox || Boolean(scheme?.scheme.startsWith('wrapper'))
  const closed = seams.find((one) => one.value === scheme?.seam)?.value ?? 'lid'
  if (!made) return <Typography variant="body2">No parts yet: give the tank a shape at Shell first.</Typography>
  return (
    <>
      <Typography variant="body2" color="textSecondary">
        {made.notch
          ? 'One wrapper with a closing seam, two end pans set in with their flanges outward.'
          : `${made.scheme[0]?.toUpperCase()}${made.scheme.slice(1)}. ${HOW[made.scheme] ?? HOW_ENDS}`}
      </Typography>
      {isBox && (
        <Choice
          label="Parts"
          value={scheme?.scheme ?? declared.SheetScheme.defaults.scheme}
          options={SCHEMES}
          disabled={readOnly}
          onChange={(next) => setScheme({ scheme: next })}
        />
      )}
      {closes && (
        <Choice
          label="Closing seam"
          value={closed}
          options={seams}
          disabled={readOnly}
          onChange={(seam) => setScheme({ seam })}
        />
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        {closes && <SeamPlace readOnly={readOnly} />}
        {made.flange_mm !== null && (
          <LengthField
            label="Pan flange"
            value={scheme?.flange_mm ?? null}
            emptyText={units.editLength(made.flange_mm)}
            hint={scheme?.flange_mm ? 'typed' : 'house rule'}
            path="sheet.flange_mm"
            disabled={readOnly}
            onCommit={(flange_mm) => setScheme({ flange_mm })}
          />
        )}
        {!HOW[made.scheme] && (
          <LengthField
            label={made.notch ? 'Pan gap a side' : 'End gap a side'}
            value={scheme?.pan_gap_mm ?? null}
            emptyText={units.editLength(made.pan_gap_mm)}
            hint={scheme?.pan_gap_mm === null || scheme?.pan_gap_mm === undefined ? 'house rule' : 'typed'}
            path="sheet.pan_gap_mm"
            disabled={readOnly}
            onCommit={(pan_gap_mm) => setScheme({ pan_gap_mm })}
          />
        )}
      </Box>
      {made.impossible && <Alert severity="error">{units.say(made.impossible)}</Alert>}
      <PartsTable made={made} />
      <Typography variant="body2" color="textSecondary">
        {shell &&
          shell.kind !== 'cylinder' &&
          made.bends > 0 &&
          `${made.notch ? 'Every bend 90°, inside' : 'Inside'} radius ${units.cut(shell.bend_radius_mm)}. `}
        {made.notch && `Pan corners notched ${units.cut(made.notch.side_mm)} square. `}
        {made.roll_radius_mm !== null && `Tightest roll ${units.cut(made.roll_radius_mm)} outside. `}
        Sizes from the lower left corner.
      </Typography>
      {findings}
      <Elsewhere />
      <Alert severity="warning" icon={false}>
        Bend a test strip of the same sheet first: K decides every line here. Deburr before you handle the parts.
      </Alert>
      <Typography variant="h2">Download</Typography>
      <Papers station="sheet" only={(name) => !isOfPart(name) && !/^(question|send-out)-/.test(name)} />
      <Folded title="Each part by itself" open={made.parts.length <= FEW_PARTS}>
        <Papers station="sheet" only={isOfPart} />
      </Folded>
      <Holes parts={made.parts} />
      <AsBuilt />
      <FoldedUp />
      <Folded title="How the flats are calculated">
        <Calculation made={made} />
      </Folded>
    </>
  )
}

/** How far along its face the wrapper closes; half way where nothing is typed. */
function SeamPlace({ readOnly }: { readOnly: boolean }) {
  const places = useWork((work) => work.evaluation?.sheet?.seam)
  const wrap = useWork((work) => (work.design.shell as { wrap_axis?: string } | null)?.wrap_axis)
  const seam = useWork((work) => work.design.sheet?.seam)
  const share = useWork((work) => work.design.sheet?.seam_share ?? HALF)
  const units = useUnits()
  const face = places?.at ? (places.faces as SeamFace[]).find((one) => one.seam === seam) : undefined
  const long = face ? Math.hypot(face.high.x - face.low.x, face.high.y - face.low.y, face.high.z - face.low.z) : 0
  if (!long) return null
  return (
    <LengthField
      label={seam === 'side' ? 'Seam up from floor' : `Seam from ${wrap === 'x' ? 'right' : 'rear'}`}
      value={share === HALF ? null : share * long}
      emptyText={units.editLength(HALF * long)}
      hint={share === HALF ? 'half way' : 'typed'}
      path="sheet.seam_share"
      disabled={readOnly}
      onCommit={(mm) => setScheme({ seam_share: mm === null ? HALF : mm / long })}
    />
  )
}

const isOfPart = (name: string) => name.endsWith('.dxf') || name.endsWith('.svg')

/** What folding the parts in the computer came to; known once the hand rests. */
function FoldedUp() {
  const proof = useWork((work) => work.evaluation?.sheet?.fold_proof)
  const seams = useWork((work) => work.evaluation?.sheet?.seam_proof)
  const units = useUnits()
  if (!proof?.pieces.length) return null
  return (
    <Folded title="Folded up in the computer">
      <Typography variant="body2" color="textSecondary">
        How far the outside of each piece, folded by its flat, lies from the tank as drawn. More than{' '}
        {units.exact(proof.limit_mm)} is a stop.
        {seams &&
          ` Of ${seams.edges} edges ${seams.edges - seams.open.length} meet what they are welded to, over ${units.exact(seams.widest_mm)} at most.`}
      </Typography>
      <Table size="small" aria-label="Folded pieces">
        <TableBody>
          {proof.pieces.map((piece) => (
            <TableRow key={`${piece.name} ${piece.piece}`}>
              <TableCell sx={{ pl: 0 }}>
                {piece.title}
                {piece.piece !== piece.name && `, ${piece.piece}`}
              </TableCell>
              <TableCell align="right" sx={{ pr: 0, whiteSpace: 'nowrap' }}>
                {units.exact(piece.off_mm)}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Folded>
  )
}

function PartsTable({ made }: { made: Sheet }) {
  const units = useUnits()
  return (
    <Table size="small" aria-label="Flat parts">
      <TableHead>
        <TableRow>
          <TableCell sx={{ pl: 0 }}>Part</TableCell>
          <TableCell align="right">Flat, {units.lengthUnit}</TableCell>
          <TableCell align="right" sx={{ pr: 0 }}>
            {units.unit('kg')}
          </TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {made.parts.map((part) => (
          <TableRow key={part.name}>
            <TableCell sx={{ pl: 0 }}>
              {part.quantity} × {part.title.toLowerCase()}
            </TableCell>
            <TableCell align="right" title={`${units.exact(part.length_mm)} × ${units.exact(part.width_mm)}`}>
              {units.cut(part.length_mm)} × {units.cut(part.width_mm)}
            </TableCell>
            <TableCell align="right" sx={{ pr: 0 }}>
              {units.amount('kg', part.mass_kg * part.quantity)}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}

function Calculation({ made }: { made: Sheet }) {
  const units = useUnits()
  const notchRows = (notch: NonNullable<Sheet['notch']>): [string, string][] => [
    ['Pan notch: the largest of', units.exact(notch.side_mm)],
    ['· flange + clearance (house rule)', units.exact(notch.by_rule_mm)],
    ['· flange ends clear of each other', units.exact(notch.flanges_clear_mm)],
    ['· clear of the wrapper’s inside radius', units.exact(notch.wrapper_radius_mm)],
  ]
  const rows: [string, string][] = [
    ['K, from the workshop', String(made.k)],
    ['Bend deduction at 90°', units.exact(made.bend_deduction_mm)],
    [
      made.flange_mm === null ? 'Longest part along its bends' : 'Wrapper along its axis, lips included',
      units.lengthUnitText(made.overall_mm),
    ],
    ...(made.section_inside_mm
      ? [
          ['Section inside', made.section_inside_mm.map((mm) => units.length(mm as number)).join(' × ')] as [
            string,
            string,
          ],
        ]
      : []),
    ...(made.notch ? notchRows(made.notch) : []),
    ['Bends', String(made.bends)],
    ['Weld at the floor', units.quantity('m', made.weld_at_floor_mm / 1000)],
    ['Pan corners to fill besides', units.quantity('m', made.corner_fill_mm / 1000)],
  ]
  return (
    <Table size="small">
      <TableBody>
        {rows.map(([what, value]) => (
          <TableRow key={what}>
            <TableCell sx={{ pl: 0 }}>{what}</TableCell>
            <TableCell align="right" sx={{ pr: 0, whiteSpace: 'nowrap' }}>
              {value}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}
