import { QueryClient } from '@tanstack/react-query'
import { Route, Routes, useLocation } from 'react-router'
import { server } from './browserless'
import { markup } from './markup'
import { JobsPage } from '../src/jobs/JobsPage'
import JobPage from '../src/jobs/JobPage'
import { customersQuery, jobQuery, jobsQuery, standingQuery, timelineQuery } from '../src/jobs/queries'
import { papersQuery } from '../src/papers/Papers'
import type { Units } from '../src/api/model'
import { workshopQuery } from '../src/workshop/query'
import WorkshopPage from '../src/workshop/WorkshopPage'

/** The pages beside the stations as somebody sees them; `answers` has the server's by path. */
export async function offices(answers: Record<string, unknown>, number: number, units: Units) {
  server.answer = ({ path }) =>
    path in answers ? { status: 200, body: answers[path] } : { status: 404, body: { code: 'none', message: path } }
  const queries = new QueryClient()
  queries.setQueryData(['session'], answers['/api/session'])
  queries.setQueryData(['people'], answers['/api/people'])
  await queries.fetchQuery(jobsQuery({ search: '', state: '', customer: null, page: 1 }))
  await queries.fetchQuery(customersQuery)
  await queries.fetchQuery(workshopQuery)
  const job = await queries.fetchQuery(jobQuery(number))
  await queries.fetchQuery(timelineQuery(number))
  for (const { id, revision } of job.designs) {
    await queries.fetchQuery(standingQuery(id, revision))
    await queries.fetchQuery(papersQuery(id, revision))
  }
  return {
    jobs: await markup(<JobsPage />, units, queries),
    job: await markup(<AtJob number={number} />, units, queries),
    workshop: await markup(<WorkshopPage />, units, queries),
  }
}

/** A job's page under its address. */
function AtJob({ number }: { number: number }) {
  const location = { ...useLocation(), pathname: `/jobs/${number}` }
  return (
    <Routes location={location}>
      <Route path="/jobs/:number" element={<JobPage />} />
    </Routes>
  )
}
