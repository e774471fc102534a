import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import { Failure } from '../api/client'
import { App } from './App'

/** The application in a place on a page. */
export function mount(place: Element) {
  const queries = new QueryClient({
    defaultOptions: {
      queries: {
        retry: (count, error) => count < 2 && !(error instanceof Failure && error.status >= 400 && error.status < 500),
        refetchOnWindowFocus: false,
      },
    },
  })
  const root = createRoot(place)
  root.render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  )
  return root
}
