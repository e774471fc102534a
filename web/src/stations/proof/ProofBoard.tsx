import { Alert, Box, Button, ToggleButton, ToggleButtonGroup } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { lazy, Suspense } from 'react'
import type { Build, CellPlan, CellProof, ProofRound } from '../../api/model'
import { BeginTest } from '../../floor/proof/BeginTest'
import { isRunning, proofOf, STANDING_WORDS, toneOf, VERDICT_WORDS } from '../../floor/proof/proof'
import { RoundView } from '../../floor/proof/RoundView'
import { useBuild } from '../../floor/build'
import { WaitingStrip } from '../../floor/WaitingStrip'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { PracticeTest } from './PracticeTest'
import { NEW, PRACTICE, showAlong, showCell, showRound, showSeam, useProofView } from './view'

const ProofScene = lazy(() => import('./ProofScene'))

/** The leak test: its curve or walk on the left, the tank with its seams and its weakest panel on the right. */
export function ProofBoard({ designId }: { designId: number }) {
  const { build, error } = useBuild(designId)
  const view = useProofView()
  if (!build) return error ? <Alert severity="error">{error.message}</Alert> : null
  const plan = build.plan
  const cell = plan?.cells.find((one) => one.cell === view.cell) ?? plan?.cells[0]
  const proof = cell && proofOf(build, cell.cell)
  if (!plan || !cell || !proof)
    return <Box sx={{ p: 3 }}>Nothing to test yet: give the tank a shape at Shell that can be made of sheet.</Box>
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
      <WaitingStrip />
      <Heading build={build} proof={proof} cells={plan.cells} cell={cell} />
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        <Box
          component="section"
          aria-label={`Leak test of the ${cell.cell}`}
          tabIndex={0}
          sx={{ flex: '1 1 52%', minWidth: 0, overflowY: 'auto', p: 2 }}
        >
          <Test build={build} proof={proof} cell={cell} />
        </Box>
        <Suspense fallback={<Box sx={{ flex: '1 1 48%' }} />}>
          <ProofScene build={build} proof={proof} cell={cell} round={chosenRound(proof, view.round)} />
        </Suspense>
      </Box>
    </Box>
  )
}

/** The test that is looked at: the one chosen, else the latest. */
const chosenRound = (proof: CellProof, round: string | null) =>
  proof.rounds.find((one) => one.begun.id === round) ??
  (round === NEW || round === PRACTICE ? undefined : proof.rounds.at(-1))

interface HeadingProps {
  build: Build
  proof: CellProof
  cells: CellPlan[]
  cell: CellPlan
}

function Heading({ build, proof, cells, cell }: HeadingProps) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const readOnly = useWork((work) => work.readOnly)
  const { round } = useProofView()
  const running = build.state.proofs.some((one) => one.rounds.some(isRunning))
  const isVoid = (one: ProofRound) => proof.standing === 'void' && one.verdict === 'pass'
  const at = chosenRound(proof, round)?.begun.id ?? round ?? NEW
  return (
    <Box
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        gap: 1.5,
        px: 2,
        py: 1,
        borderBottom: `1px solid ${inks.line}`,
      }}
    >
      {cells.length > 1 && (
        <ToggleButtonGroup
          exclusive
          size="small"
          aria-label="Cell"
          value={cell.cell}
          onChange={(_, name: string | null) => name && showCell(name)}
        >
          {cells.map((one) => (
            <ToggleButton key={one.cell} value={one.cell}>
              {one.cell}: {STANDING_WORDS[proofOf(build, one.cell)?.standing ?? 'not tested']}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      )}
      <Box
        data-proof={proof.standing}
        sx={{ fontWeight: 700, color: proof.standing === 'passed' ? inks.good : undefined }}
      >
        {cells.length === 1 && `Leak test ${STANDING_WORDS[proof.standing]}`}
      </Box>
      <Box role="group" aria-label="Tests" sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap', flex: 1 }}>
        {proof.rounds.map((one) => (
          <Button
            key={one.begun.id}
            size="small"
            variant="outlined"
            aria-pressed={one.begun.id === at}
            onClick={() => showRound(one.begun.id)}
            sx={{
              minHeight: 36,
              color: inks[isVoid(one) ? 'caution' : toneOf(one.verdict)],
              borderColor: 'currentColor',
              ...(one.begun.id === at ? { boxShadow: `inset 0 -3px 0 ${inks.hand}` } : {}),
            }}
          >
            {one.number} {VERDICT_WORDS[one.verdict]}
            {isVoid(one) && ', void'}
          </Button>
        ))}
      </Box>
      {!readOnly && (
        <>
          <Button variant="contained" disabled={running} onClick={() => showRound(NEW)}>
            New test
          </Button>
          <Button variant="outlined" onClick={() => showRound(PRACTICE)}>
            Practise
          </Button>
        </>
      )}
      {proof.lacks && !['not tested', 'running'].includes(proof.standing) && (
        <Box sx={{ flexBasis: '100%', color: inks.caution, fontWeight: 600 }}>
          {cells.length > 1 && `${proof.cell}: `}
          {say(proof.lacks)}
        </Box>
      )}
    </Box>
  )
}

function Test({ build, proof, cell }: { build: Build; proof: CellProof; cell: CellPlan }) {
  const readOnly = useWork((work) => work.readOnly)
  const { round, seam, along } = useProofView()
  const chosen = chosenRound(proof, round)
  if (round === PRACTICE) return <PracticeTest designId={build.design_id} cell={cell.cell} />
  if (chosen)
    return (
      <RoundView
        key={chosen.begun.id}
        build={build}
        round={chosen}
        mayWrite={!readOnly}
        at={seam}
        along={along}
        onSeam={showSeam}
        onAlong={showAlong}
      />
    )
  if (readOnly) return <Box>Not tested yet.</Box>
  return (
    <Box sx={{ maxWidth: 460 }}>
      <BeginTest key={cell.cell} build={build} plan={cell} onBegun={showRound} />
    </Box>
  )
}
