import { Alert } from '@mui/material'
import type { Fault } from '../api/client'
import { useUnits } from '../units/useUnits'

const SHOWN = 12

/** What was wrong with rows of a file; the good ones were taken. */
export function Problems({ problems, taken }: { problems: Fault[]; taken: string }) {
  const { inText } = useUnits()
  if (!problems.length) return null
  return (
    <Alert severity="warning" data-problems>
      {taken} Left out:
      <ul style={{ margin: '4px 0', paddingLeft: 18 }}>
        {problems.slice(0, SHOWN).map((problem) => (
          <li key={problem.field + problem.message}>{inText(problem.message)}</li>
        ))}
      </ul>
      {problems.length > SHOWN && `and ${problems.length - SHOWN} more.`}
    </Alert>
  )
}
