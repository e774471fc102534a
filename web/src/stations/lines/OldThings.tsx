import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import * as declared from '../../api/declared'
import type { OldThing } from '../../api/model'
import { Choice, MaybeChoice } from '../../fields/fields'
import { NameField, WordsField } from '../../fields/WordsField'
import { freshName } from '../../work/naming'
import { useWork } from '../../work/store'
import { setLines } from './edits'

const FATES = { keep: 'keep', move: 'move', cap: 'cap', remove: 'remove' } as const
const STAYS = new Set(['keep', 'move'])

/** Every line, wire, vapour part and port of the old tank, and what becomes of it. */
export function OldThings({ readOnly }: { readOnly: boolean }) {
  const old = useWork((work) => work.design.lines.old)
  const add = () => setLines({ old: [...old, { ...declared.OldThing.defaults, ...freshName('old line', old) }] })
  return (
    <>
      {!old.length && (
        <Typography variant="body2">
          Write down every line, wire and vapour part on the old tank, and label it, while you still see where it goes.
          Whatever has no fate yet stays open.
        </Typography>
      )}
      {old.map((thing) => (
        <Thing key={thing.id} thing={thing} readOnly={readOnly} />
      ))}
      <Button variant="outlined" disabled={readOnly || old.length >= declared.Lines.most.old} onClick={add}>
        Add a line, wire or part
      </Button>
    </>
  )
}

function Thing({ thing, readOnly }: { thing: OldThing; readOnly: boolean }) {
  const { inks } = useTheme()
  const old = useWork((work) => work.design.lines.old)
  const shown = useWork((work) => work.evaluation?.lines?.old)
  const said = shown?.things.find((one) => one.id === thing.id)
  const change = (part: Partial<OldThing>) =>
    setLines({ old: old.map((one) => (one.id === thing.id ? { ...one, ...part } : one)) })
  const places = shown?.places ?? []
  const gone = thing.to && !places.some((one) => one.key === thing.to)
  return (
    <Box
      data-old={thing.id}
      sx={{ display: 'flex', flexDirection: 'column', gap: 1.5, borderTop: `1px solid ${inks.line}`, pt: 1.5 }}
    >
      <NameField value={thing.name} disabled={readOnly} onCommit={(name) => change({ name })} />
      <Choice
        label="Kind"
        value={thing.kind}
        options={declared.OldThing.choices.kind}
        disabled={readOnly}
        onChange={(kind) => change({ kind })}
      />
      <WordsField
        mayBeEmpty
        label="What it did"
        value={thing.did}
        most={declared.OldThing.most.did}
        disabled={readOnly}
        onCommit={(did) => change({ did })}
      />
      <MaybeChoice
        label="What becomes of it"
        value={thing.fate}
        options={Object.values(FATES)}
        none="not known yet"
        disabled={readOnly}
        onChange={(fate) => change({ fate })}
      />
      {thing.fate && STAYS.has(thing.fate) && (
        <Choice
          label="Joined now at"
          value={thing.to}
          options={[
            { value: '', label: 'not said' },
            ...places.map((one) => ({ value: one.key, label: one.name })),
            ...(gone ? [{ value: thing.to, label: `${thing.to}, gone` }] : []),
          ]}
          disabled={readOnly}
          onChange={(to) => change({ to })}
        />
      )}
      {thing.fate === 'cap' && (
        <WordsField
          mayBeEmpty
          label="Closed by"
          value={thing.closed_by}
          most={declared.OldThing.most.closed_by}
          disabled={readOnly}
          onCommit={(closed_by) => change({ closed_by })}
        />
      )}
      {said?.fault && (
        <Typography variant="body2" sx={{ color: inks.stop }}>
          {SAID[said.fault]}
        </Typography>
      )}
      <Button disabled={readOnly} onClick={() => setLines({ old: old.filter((one) => one.id !== thing.id) })}>
        Remove {thing.name} from the list
      </Button>
    </Box>
  )
}

const SAID: Record<string, string> = {
  'no fate': 'Open: nobody has said what becomes of it',
  'no place': 'Open: it stays, and nothing says where it is joined',
  gone: 'Open: where it was to be joined is gone',
  taken: 'Open: something else is joined there',
  'not closed': 'Open: nothing says what closes it',
}
