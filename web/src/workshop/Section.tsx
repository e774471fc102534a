import { Box, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { ReactNode } from 'react'

/** A part of the workshop’s page. */
export function Section({ title, about, children }: { title: string; about: string; children: ReactNode }) {
  const { inks } = useTheme()
  return (
    <Box component="section" sx={{ background: inks.sheet, border: `1px solid ${inks.line}`, p: 2.5, mb: 2 }}>
      <Typography variant="h2">{title}</Typography>
      <Typography variant="body2" color="textSecondary" sx={{ mb: 2 }}>
        {about}
      </Typography>
      {children}
    </Box>
  )
}

/** Fields beside each other. */
export const grid = { display: 'grid', gridTemplateColumns: { xs: '1fr 1fr', md: 'repeat(4, 1fr)' }, gap: 2 }
