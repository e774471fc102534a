import { Box, Button, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { Schemas } from '../../api/client'
import { Choice } from '../../fields/fields'
import { WordsField } from '../../fields/WordsField'
import { Papers } from '../../papers/Papers'
import { useWork } from '../../work/store'
import { answered, ask, dropQuestion } from './edits'

type Question = Schemas['PartQuestion']

const CAN = [
  { value: 'open', label: 'no answer yet' },
  { value: 'yes', label: 'they can make it' },
  { value: 'no', label: 'they can’t' },
]

/** Parts that this shop can't bend, or that somebody was asked about. */
export function Elsewhere() {
  const bent = useWork((work) => work.evaluation?.sheet?.bending?.parts)
  const questions = useWork((work) => work.design.sheet?.questions)
  const parts = (bent ?? []).filter(
    (part) => part.stuck !== null || questions?.some((question) => question.part === part.name),
  )
  return parts.map((part) => <Questions key={part.name} part={part.name} title={part.title} />)
}

/** What is asked of somebody else about a part: a page to send, and the answer as it came back. */
function Questions({ part, title }: { part: string; title: string }) {
  const questions = useWork((work) => work.design.sheet?.questions)
  const readOnly = useWork((work) => work.readOnly)
  const own = (questions ?? []).filter((question) => question.part === part)
  return (
    <Box component="section" aria-label={`Questions about the ${title.toLowerCase()}`}>
      {own.map((question) => (
        <Asked key={question.id} question={question} readOnly={readOnly} />
      ))}
      <Button variant="outlined" disabled={readOnly} onClick={() => ask(part, title)}>
        Ask somebody else about the {title.toLowerCase()}
      </Button>
    </Box>
  )
}

function Asked({ question, readOnly }: { question: Question; readOnly: boolean }) {
  const set = (part: Partial<Question>) => answered(question.id, part)
  const can = question.can === true ? 'yes' : question.can === false ? 'no' : 'open'
  return (
    <Box sx={{ display: 'grid', gap: 1.75, mb: 2 }}>
      <WordsField
        label="Who is asked"
        value={question.to}
        most={declared.PartQuestion.most.to}
        disabled={readOnly}
        mayBeEmpty
        onCommit={(to) => set({ to })}
      />
      <Choice
        label="Their answer"
        value={can}
        options={CAN}
        disabled={readOnly}
        onChange={(next) => set({ can: next === 'open' ? null : next === 'yes' })}
      />
      <WordsField
        label="Question"
        value={question.asked}
        most={declared.PartQuestion.most.asked}
        disabled={readOnly}
        lines={2}
        onCommit={(asked) => set({ asked })}
      />
      <WordsField
        label="In their words"
        value={question.answer}
        most={declared.PartQuestion.most.answer}
        disabled={readOnly}
        lines={2}
        mayBeEmpty
        onCommit={(answer) => set({ answer })}
      />
      <Papers station="sheet" only={(name) => name === `question-${question.id}.pdf`} />
      <Button size="small" disabled={readOnly} onClick={() => dropQuestion(question.id)} sx={{ justifySelf: 'start' }}>
        Remove the question
      </Button>
      <Typography sx={{ fontSize: 12 }} color="textSecondary">
        Kept with the design and its revisions.
      </Typography>
    </Box>
  )
}
