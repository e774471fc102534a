import { useTheme } from '@mui/material/styles'
import type { Finding, StationMark } from '../api/model'

type Severity = Finding['severity']

/** A finding's mark: told by shape as well as by colour. */
export function SeverityMark({ severity, size = 18 }: { severity: Severity; size?: number }) {
  const { inks } = useTheme()
  const colour = inks[severity]
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" aria-hidden="true" style={{ flexShrink: 0 }}>
      {severity === 'stop' && <path d="M6 1h8l5 5v8l-5 5H6l-5-5V6z" fill={colour} />}
      {severity === 'caution' && <path d="M10 1.500 19 18H1z" fill={colour} />}
      {severity === 'note' && <circle cx="10" cy="10" r="8" fill="none" stroke={colour} strokeWidth="2.500" />}
      {severity === 'stop' && <path d="M5.500 10h9" stroke={inks.sheet} strokeWidth="2.500" />}
      {severity === 'caution' && <path d="M10 7v5M10 14v2" stroke={inks.sheet} strokeWidth="2" />}
      {severity === 'note' && <path d="M10 9v5M10 5.500v2" stroke={colour} strokeWidth="2" />}
    </svg>
  )
}

/** How far a station is: an empty ring, a half-filled one, an octagon, a tick. */
export function StationMarkIcon({ state }: { state: StationMark }) {
  const { inks } = useTheme()
  if (state === 'blocked') return <SeverityMark severity="stop" />
  return (
    <svg width="18" height="18" viewBox="0 0 20 20" aria-hidden="true" style={{ flexShrink: 0 }}>
      <circle
        cx="10"
        cy="10"
        r="8"
        fill={state === 'ready' ? inks.good : 'none'}
        stroke={state === 'ready' ? inks.good : inks.quiet}
        strokeWidth="2"
        strokeDasharray={state === 'not judged yet' ? '3 3.280' : undefined}
      />
      {state === 'needs attention' && <path d="M10 2a8 8 0 0 1 0 16z" fill={inks.quiet} />}
      {state === 'ready' && <path d="M5.500 10.500l3 3 6-7" fill="none" stroke={inks.sheet} strokeWidth="2.300" />}
    </svg>
  )
}
