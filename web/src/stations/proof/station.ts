import { useQuery } from '@tanstack/react-query'
import { buildQuery } from '../../floor/query'
import { useWork } from '../../work/store'
import { always, shownLater, type Station } from '../station'

export const proof: Station = {
  name: 'proof',
  title: 'Proof',
  about: 'leak test',
  group: 'make',
  Panel: shownLater(() => import('./ProofStation'), 'ProofStation'),
  asks: ['proof', 'sheet.folding'],
  board: {
    Shown: shownLater(() => import('./ProofBoard'), 'ProofBoard'),
    name: 'the leak test',
    first: true,
    useIsThere: always,
  },
  // Ready when every cell has passed and nothing was done since; blocked while the plan can't be followed.
  useMark: (designId) => {
    const judged = useWork((work) => work.evaluation?.stations?.find((one) => one.station === 'proof')?.state)
    const proofs = useQuery({ ...buildQuery(designId), refetchInterval: false }).data?.state.proofs
    if (proofs?.length && proofs.every((one) => one.standing === 'passed')) return 'ready'
    if (judged === 'blocked') return 'blocked'
    return proofs?.some((one) => one.rounds.length > 0) ? 'needs attention' : 'not judged yet'
  },
}
