import { Alert, Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { type FormEvent, useState } from 'react'
import { Plate } from './Plate'
import { useSignIn } from './session'

export function SignIn() {
  const { inks } = useTheme()
  const [username, setUsername] = useState('')
  const [password, setPassword] = useState('')
  const signIn = useSignIn()
  const submit = (event: FormEvent) => {
    event.preventDefault()
    signIn.mutate({ username: username.trim().toLowerCase(), password })
  }
  return (
    <Box
      component="main"
      sx={{ minHeight: '100dvh', display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1.2fr 1fr' } }}
    >
      <Box
        sx={{
          background: inks.plate,
          color: inks.plateInk,
          p: { xs: 4, md: 8 },
          display: 'flex',
          flexDirection: 'column',
          justifyContent: 'center',
          gap: 4,
        }}
      >
        <div>
          <Plate size={1.5} />
        </div>
        <Typography
          sx={{ fontSize: { xs: '1.4rem', md: '2rem' }, fontWeight: 500, maxWidth: '18em', lineHeight: 1.25 }}
        >
          From the space you measured to sheet you can cut.
        </Typography>
        <SectionSketch />
      </Box>
      <Stack
        component="form"
        onSubmit={submit}
        sx={{ justifyContent: 'center', gap: 2.5, p: { xs: 4, md: 8 }, maxWidth: 460 }}
      >
        <Typography variant="h1">Sign in to your workshop</Typography>
        {signIn.error && <Alert severity="error">{signIn.error.message}</Alert>}
        <TextField
          label="Name"
          autoComplete="username"
          autoFocus
          value={username}
          onChange={(e) => setUsername(e.target.value)}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          value={password}
          onChange={(e) => setPassword(e.target.value)}
        />
        <Button type="submit" variant="contained" size="large" disabled={!username || !password || signIn.isPending}>
          Sign in
        </Button>
        <Typography variant="body2" color="textSecondary">
          No account? The owner of your workshop makes one under Workshop.
        </Typography>
      </Stack>
    </Box>
  )
}

/** A tank in section on its bearers: what the whole thing is about. */
function SectionSketch() {
  const { inks } = useTheme()
  return (
    <svg viewBox="0 0 420 170" width="100%" style={{ maxWidth: 460 }} aria-hidden="true">
      <path
        d="M10 150H410M40 150v-14M380 150v-14M40 136h340"
        stroke={inks.plateInk}
        strokeOpacity=".5"
        fill="none"
        strokeWidth="2"
      />
      <path d="M62 66c30-10 60 8 96 0s60-8 100 0 60 8 100 0v54c0 6-4 10-10 10H72c-6 0-10-4-10-10z" fill="#e08a1e" />
      <path
        d="M58 34c0-8 6-14 14-14h276c8 0 14 6 14 14v86c0 8-6 14-14 14H72c-8 0-14-6-14-14z"
        fill="none"
        stroke={inks.plateInk}
        strokeWidth="4"
      />
      <path d="M58 8v-6M362 8V2M58 5h304" stroke={inks.plateInk} strokeWidth="1.4" />
    </svg>
  )
}
