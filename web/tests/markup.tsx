import './browserless'
import { ThemeProvider } from '@mui/material/styles'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { prerenderToNodeStream } from 'react-dom/static'
import { MemoryRouter } from 'react-router'
import { text } from 'node:stream/consumers'
import type { Units } from '../src/api/model'
import { makeTheme } from '../src/app/theme'
import { UnitsContext } from '../src/units/useUnits'

/** What the page would show of something, once all of it has come; `queries` has what was fetched before. */
export async function markup(node: ReactNode, units: Units = 'mm_l', queries = new QueryClient()): Promise<string> {
  const { prelude } = await prerenderToNodeStream(
    <QueryClientProvider client={queries}>
      <ThemeProvider theme={makeTheme('light')}>
        <UnitsContext value={units}>
          <MemoryRouter>{node}</MemoryRouter>
        </UnitsContext>
      </ThemeProvider>
    </QueryClientProvider>,
  )
  return text(prelude)
}
