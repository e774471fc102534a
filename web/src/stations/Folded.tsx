import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { ReactNode } from 'react'

/** Something that is there when wanted. */
export function Folded({ title, children, open = false }: { title: string; children: ReactNode; open?: boolean }) {
  const { inks } = useTheme()
  return (
    <Box
      component="details"
      open={open}
      sx={{
        borderTop: `1px solid ${inks.line}`,
        '& > summary': { cursor: 'pointer', minHeight: 44, display: 'flex', alignItems: 'center', fontWeight: 650 },
        '& > summary::after': { content: '"+"', marginLeft: 'auto', fontSize: 20 },
        '&[open] > summary::after': { content: '"–"' },
      }}
    >
      <summary>{title}</summary>
      <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.75, pb: 2, pt: 0.5 }}>{children}</Box>
    </Box>
  )
}
