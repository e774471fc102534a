import { useMemo } from 'react'
import type { Build, Entry, ProofRound } from '../../api/model'
import { useOutbox } from '../outbox'

/** A test's walked seams and leaks, with those that wait on this device. */
export function useWalked(build: Build, round: ProofRound) {
  const waiting = useOutbox((outbox) => outbox.waiting)
  return useMemo(() => {
    const mine = waiting.flatMap(({ entry, refused }) =>
      entry && !refused && entry.design === build.design_id && 'of' in entry && entry.of === round.begun.id
        ? [entry]
        : [],
    )
    const walked = mine.flatMap((entry: Entry) => (entry.kind === 'seam walked' ? [entry.subject] : []))
    const leaks = mine.flatMap((entry: Entry) => (entry.kind === 'leak found' ? [entry] : []))
    return {
      walked: new Set([...round.walked, ...walked]),
      leaks: [...round.leaks.map((leak) => leak.found), ...leaks],
    }
  }, [waiting, build.design_id, round])
}
