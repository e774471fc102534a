import { Box } from '@mui/material'
import * as declared from '../../api/declared'
import type { Connection, LinePart } from '../../api/model'
import { Choice, Toggle } from '../../fields/fields'
import TABLE from '../../units/quantities.json'
import { Folded } from '../Folded'
import { pair } from '../Row'
import { changePart } from './edits'
import { portName } from './names'

export const sizesOf = (standard: string): string[] =>
  (TABLE.connection_sizes as Record<string, string[]>)[standard] ?? []

/** What one side of a joint is: standard, size, hand, seal. */
export function ConnectionFields({
  value,
  disabled,
  onChange,
}: {
  value: Pick<Connection, 'standard' | 'size' | 'hand' | 'seal'>
  disabled: boolean
  onChange: (part: Partial<Connection>) => void
}) {
  const known = sizesOf(value.standard)
  return (
    <Box sx={pair}>
      <Choice
        label="Standard"
        value={value.standard}
        options={declared.PartConnection.choices.standard}
        disabled={disabled}
        onChange={(standard) => onChange({ standard, size: sizesOf(standard)[0] ?? value.size })}
      />
      <Choice
        label="Size"
        value={value.size}
        options={known}
        disabled={disabled}
        onChange={(size) => onChange({ size })}
      />
      <Choice
        label="Hand"
        value={value.hand}
        options={declared.PartConnection.choices.hand}
        disabled={disabled}
        onChange={(hand) => onChange({ hand })}
      />
      <Choice
        label="Rubber of its seal"
        value={value.seal ?? 'none'}
        options={['none', ...declared.PartConnection.choices.seal]}
        disabled={disabled}
        onChange={(seal) => onChange({ seal: seal === 'none' ? null : seal })}
      />
    </Box>
  )
}

/** Every connection of a part. */
export function PartConnections({ part, readOnly }: { part: LinePart; readOnly: boolean }) {
  const change = (id: string, to: Partial<Connection>) =>
    changePart(part.id, { connections: part.connections.map((one) => (one.id === id ? { ...one, ...to } : one)) })
  return (
    <>
      {part.connections.map((one) => (
        <Folded key={one.id} title={`Connection: ${portName(one.id)}, ${one.size} ${one.standard}`}>
          <ConnectionFields value={one} disabled={readOnly} onChange={(to) => change(one.id, to)} />
          <Toggle
            label="Capped"
            checked={one.capped}
            disabled={readOnly}
            onChange={(capped) => change(one.id, { capped })}
          />
          <Toggle
            label="Tape or paste on its thread"
            checked={one.sealant}
            disabled={readOnly}
            onChange={(sealant) => change(one.id, { sealant })}
          />
        </Folded>
      ))}
    </>
  )
}
