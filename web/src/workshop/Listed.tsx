import { Box, Button } from '@mui/material'
import type { ReactNode } from 'react'
import { grid } from './Section'

interface Props<T extends { name: string }> {
  items: T[]
  disabled: boolean
  /** What adding one is called, and what a new one starts as. */
  add: string
  fresh: () => T
  onChange: (items: T[]) => void
  children: (item: T, place: number, set: (part: Partial<T>) => void) => ReactNode
}

/** Things of the shop, each with its fields: changed, removed, added. */
export function Listed<T extends { name: string }>({ items, disabled, add, fresh, onChange, children }: Props<T>) {
  return (
    <>
      {items.map((item, place) => (
        <Box key={place} role="group" aria-label={item.name} sx={{ mb: 3 }}>
          <Box sx={grid}>
            {children(item, place, (part) =>
              onChange(items.map((one, n) => (n === place ? { ...one, ...part } : one))),
            )}
          </Box>
          {!disabled && (
            <Button onClick={() => onChange(items.filter((_, n) => n !== place))}>Remove {item.name}</Button>
          )}
        </Box>
      ))}
      {!disabled && (
        <Button variant="outlined" onClick={() => onChange([...items, fresh()])}>
          {add}
        </Button>
      )}
    </>
  )
}
