import { Button, Stack, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import { Link } from 'react-router'

export const NothingHere = () => (
  <Message title="There is nothing here" text="The address is wrong, or this belongs to another workshop.">
    <Button component={Link} to="/" variant="contained">
      To the jobs
    </Button>
  </Message>
)

export function Message({ title, text, children }: { title: string; text: string; children?: ReactNode }) {
  return (
    <Stack
      component="main"
      sx={{ flex: 1, alignItems: 'center', justifyContent: 'center', gap: 2, p: 4, minHeight: 300 }}
    >
      <Typography variant="h1">{title}</Typography>
      {text && <Typography sx={{ overflowWrap: 'anywhere' }}>{text}</Typography>}
      {children}
    </Stack>
  )
}
