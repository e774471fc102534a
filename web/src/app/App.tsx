import { Box, Button, CssBaseline, ThemeProvider, useMediaQuery } from '@mui/material'
import { lazy, Suspense, useEffect, useMemo } from 'react'
import { Route, Routes, useMatch } from 'react-router'
import type { Session } from '../api/model'
import { UnitsContext } from '../units/useUnits'
import { JobsPage } from '../jobs/JobsPage'
import { ErrorBoundary } from './ErrorBoundary'
import { Header } from './Header'
import { Message, NothingHere } from './Message'
import { useSession } from './session'
import { SignIn } from './SignIn'
import { makeTheme } from './theme'

const WorkPage = lazy(() => import('../work/WorkPage'))
const JobPage = lazy(() => import('../jobs/JobPage'))
const FloorPage = lazy(() => import('../floor/FloorPage'))
const WorkshopPage = lazy(() => import('../workshop/WorkshopPage'))

export function App() {
  const session = useSession()
  const dark = useMediaQuery('(prefers-color-scheme: dark)')
  const wanted = session.data?.theme ?? 'system'
  const mode = wanted === 'system' ? (dark ? 'dark' : 'light') : wanted
  const theme = useMemo(() => makeTheme(mode), [mode])
  return (
    <ThemeProvider theme={theme}>
      <CssBaseline enableColorScheme />
      {session.data ? (
        <SignedIn session={session.data} />
      ) : session.isError ? (
        <Message title="The workshop’s server can’t be reached" text="Nothing you saved is lost.">
          <Button variant="contained" onClick={() => void session.refetch()}>
            Try again
          </Button>
        </Message>
      ) : session.isSuccess ? (
        <SignIn />
      ) : null}
    </ThemeProvider>
  )
}

function SignedIn({ session }: { session: Session }) {
  // At the bench the page has a strip of its own: a phone has no room for two.
  const atBench = useMatch('/floor/:number')
  useEffect(() => {
    void import('../floor/outbox').then((floor) => floor.openOutbox())
  }, [])
  return (
    <UnitsContext value={session.units}>
      <Box sx={{ display: 'flex', flexDirection: 'column', height: '100dvh', minWidth: 320 }}>
        {!atBench && <Header session={session} />}
        <ErrorBoundary title="This page has met an error">
          <Suspense fallback={<Message title="One moment" text="" />}>
            <Routes>
              <Route path="/" element={<JobsPage />} />
              <Route path="/jobs/:number" element={<JobPage />} />
              <Route path="/designs/:designId/:station?" element={<WorkPage />} />
              <Route path="/floor/:number" element={<FloorPage />} />
              <Route path="/workshop" element={<WorkshopPage />} />
              <Route path="*" element={<NothingHere />} />
            </Routes>
          </Suspense>
        </ErrorBoundary>
      </Box>
    </UnitsContext>
  )
}
