import { Box, Button } from '@mui/material'
import * as declared from '../../api/declared'
import type { Port } from '../../api/model'
import { QuantityField } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { pair } from '../Row'

type Valves = NonNullable<Port['vent']>['valves']

/** Valves, flaps and checks behind each other, each with the pressure that opens it. */
export function ValveFields({
  valves,
  path,
  usual,
  readOnly,
  onChange,
}: {
  valves: Valves
  path: string
  usual: string
  readOnly: boolean
  onChange: (valves: Valves) => void
}) {
  const set = (place: number, part: Partial<Valves[number]>) =>
    onChange(valves.map((valve, here) => (here === place ? { ...valve, ...part } : valve)))
  return (
    <Box sx={{ display: 'grid', gap: 1.5 }}>
      {valves.map((valve, place) => (
        <Box key={place} data-valve={place}>
          <Box sx={pair}>
            <NameField value={valve.name} disabled={readOnly} onCommit={(name) => set(place, { name })} />
            <QuantityField
              label="Opening pressure"
              of="kpa"
              value={valve.opens_kpa}
              path={`${path}.valves.${place}.opens_kpa`}
              disabled={readOnly}
              onCommit={(opens_kpa) => opens_kpa !== null && set(place, { opens_kpa })}
            />
          </Box>
          <Button size="small" disabled={readOnly} onClick={() => onChange(valves.filter((_, here) => here !== place))}>
            Remove {valve.name}
          </Button>
        </Box>
      ))}
      <Button
        variant="outlined"
        disabled={readOnly || valves.length >= declared.VentPath.most.valves}
        onClick={() => onChange([...valves, { ...declared.Valve.defaults, name: usual }])}
      >
        Add a {usual} in this path
      </Button>
    </Box>
  )
}
