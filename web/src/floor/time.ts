const MIN_PER_H = 60
const LONG_MIN = 100

/** A stretch of time as people say it: minutes, or hours when there are many. */
export const span = (minutes: number) =>
  minutes < LONG_MIN ? `${Math.round(minutes)} min` : `${(minutes / MIN_PER_H).toFixed(1)} h`

export const moment = (when: string) =>
  new Date(when).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
