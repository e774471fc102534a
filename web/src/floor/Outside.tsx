import { Box, Button, TextField } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build } from '../api/model'
import { Choice } from '../fields/fields'
import { record } from './build'
import { moment } from './time'

const ABOUT = ['scope', 'visible face', 'finish', 'extra'] as const
const MOST = { to: 80, text: 400 }
const FIELDS = [
  ['to', 'Sent to'],
  ['work', 'Work to be done'],
  ['state', 'State it leaves in'],
  ['may_meet', 'Heat and fluids it may meet'],
  ['returns', 'What must come back, and its check'],
] as const
type Field = (typeof FIELDS)[number][0]
const BLANK: Record<Field, string> = { to: '', work: '', state: '', may_meet: '', returns: '' }

/** What was given to somebody else, and what has come back. */
export function SentOut({ build, mayWrite }: { build: Build; mayWrite: boolean }) {
  const { inks } = useTheme()
  return (
    <>
      {build.state.out.map((one) => (
        <Box
          key={one.sent.id}
          data-out={one.back ? 'back' : 'away'}
          sx={{ borderTop: `1px solid ${inks.line}`, pt: 1 }}
        >
          <b>{one.sent.work}</b>, {one.sent.to}
          <Box sx={{ fontSize: 14, color: 'text.secondary' }}>
            {one.sent.parts?.map((name) => build.state.names[name] ?? name).join(', ')}. Sent {moment(one.when)},{' '}
            {one.author}.{one.sent.state && ` As: ${one.sent.state}.`}
            {one.sent.may_meet && ` May meet: ${one.sent.may_meet}.`}
            {one.sent.returns && ` To come back: ${one.sent.returns}.`}
          </Box>
          {one.back && (
            <Box sx={{ color: one.whole ? inks.good : inks.stop }}>
              Back {moment(one.back)}, {one.whole ? 'checked and right' : 'not as it should be: nothing is done on it'}
            </Box>
          )}
          {!one.whole && mayWrite && (
            <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
              <Button variant="outlined" onClick={() => void record(build, { kind: 'back', of: one.sent.id })}>
                Back, checked and right
              </Button>
              {!one.back && (
                <Button onClick={() => void record(build, { kind: 'back', of: one.sent.id, whole: false })}>
                  Back, not right
                </Button>
              )}
            </Box>
          )}
        </Box>
      ))}
      {mayWrite && <Send build={build} />}
    </>
  )
}

function Send({ build }: { build: Build }) {
  const [fields, setFields] = useState(BLANK)
  const parts = [...new Set(build.state.operations.flatMap((one) => one.operation.parts))]
  const [part, setPart] = useState(parts[0] ?? '')
  const isReady = fields.to.trim() && fields.work.trim() && part
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.25 }}>
      <Choice
        label="Part"
        value={part}
        options={parts.map((name) => ({ value: name, label: build.state.names[name] ?? name }))}
        onChange={setPart}
      />
      {FIELDS.map(([name, label]) => (
        <TextField
          key={name}
          label={label}
          value={fields[name]}
          onChange={(event) =>
            setFields({ ...fields, [name]: event.target.value.slice(0, name === 'to' ? MOST.to : MOST.text) })
          }
        />
      ))}
      <Button
        variant="outlined"
        disabled={!isReady}
        onClick={() => {
          void record(build, { kind: 'sent', subject: part, parts: [part], ...fields })
          setFields(BLANK)
        }}
      >
        Record as sent out
      </Button>
    </Box>
  )
}

/** What the customer agreed to: scope, faces that are seen, finish, every extra job. */
export function AgreedList({ build, mayWrite }: { build: Build; mayWrite: boolean }) {
  const { inks } = useTheme()
  const [about, setAbout] = useState<(typeof ABOUT)[number]>('scope')
  const [what, setWhat] = useState('')
  const [consent, setConsent] = useState('')
  const [price, setPrice] = useState('')
  const money = price.trim() === '' ? null : Number(price)
  const isRead = money === null || (Number.isFinite(money) && money >= 0)
  return (
    <>
      {build.state.agreed.map((one) => (
        <Box key={one.agreed.id} data-agreed sx={{ borderTop: `1px solid ${inks.line}`, pt: 1 }}>
          <b>{one.agreed.about}:</b> {one.agreed.what}
          {typeof one.agreed.price === 'number' && `, ${one.agreed.price}`}
          <Box sx={{ fontSize: 14, color: 'text.secondary' }}>
            {one.agreed.consent}; recorded by {one.author}, {moment(one.when)}
          </Box>
        </Box>
      ))}
      {mayWrite && (
        <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.25 }}>
          <Choice
            label="About"
            value={about}
            options={ABOUT.map((value) => ({ value, label: value }))}
            onChange={setAbout}
          />
          <TextField
            label="What was agreed"
            value={what}
            onChange={(event) => setWhat(event.target.value.slice(0, MOST.text))}
          />
          <TextField
            label="Who agreed, and how"
            value={consent}
            onChange={(event) => setConsent(event.target.value.slice(0, MOST.text))}
          />
          <TextField
            label="Price of an extra"
            value={price}
            error={!isRead}
            helperText={isRead ? undefined : 'zero or more'}
            onChange={(event) => setPrice(event.target.value)}
          />
          <Button
            variant="outlined"
            disabled={!what.trim() || !consent.trim() || !isRead}
            onClick={() => {
              void record(build, { kind: 'agreed', about, what: what.trim(), consent: consent.trim(), price: money })
              setWhat('')
              setConsent('')
              setPrice('')
            }}
          >
            Record as agreed
          </Button>
        </Box>
      )}
    </>
  )
}
