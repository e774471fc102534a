import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { type ReactNode, useEffect, useRef } from 'react'
import { useUnits } from '../units/useUnits'

/** One thing of a list: its name and a few words; its fields when it is at hand. */
export function Row({
  name,
  aside,
  open,
  onToggle,
  fault,
  children,
  ...rest
}: {
  name: string
  aside: ReactNode
  open: boolean
  onToggle: () => void
  fault?: string | undefined
  children: ReactNode
  'data-row'?: string
}) {
  const { inks } = useTheme()
  const { inText } = useUnits()
  const box = useRef<HTMLDivElement>(null)
  // Chosen on the drawing it may lie below the panel's edge.
  useEffect(() => {
    if (open && !box.current?.contains(document.activeElement)) box.current?.scrollIntoView({ block: 'start' })
  }, [open])
  return (
    <Box ref={box} sx={{ border: `1px solid ${open ? inks.hand : inks.line}`, px: 1, py: open ? 1 : 0 }} {...rest}>
      <Button
        fullWidth
        onClick={onToggle}
        aria-expanded={open}
        sx={{ justifyContent: 'space-between', gap: 1, color: 'text.primary', px: 0.5 }}
      >
        <span style={{ textAlign: 'left' }}>{name}</span>
        <span style={{ fontWeight: 500, fontSize: 13, textAlign: 'right' }}>{aside}</span>
      </Button>
      {fault && <Box sx={{ color: 'error.main', fontSize: 14 }}>{inText(fault)}</Box>}
      {open && <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.5, mt: 1 }}>{children}</Box>}
    </Box>
  )
}

/** Fields side by side. */
export const pair = { display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 } as const
