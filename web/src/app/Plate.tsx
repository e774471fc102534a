import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'

/** The name plate: a stamped plate held by two rivets. */
export function Plate({ size = 1 }: { size?: number }) {
  const { inks } = useTheme()
  const rivet = { width: 4, height: 4, borderRadius: '50%', background: inks.plateInk, opacity: 0.55 }
  return (
    <Box
      sx={{
        display: 'inline-flex',
        alignItems: 'center',
        gap: `${9 * size}px`,
        px: `${9 * size}px`,
        height: 32 * size,
        border: `1px solid ${inks.plateInk}55`,
        borderRadius: '4px',
        background: inks.plate,
        color: inks.plateInk,
        whiteSpace: 'nowrap',
      }}
    >
      <span style={rivet} />
      <svg width={22 * size} height={19 * size} viewBox="0 0 26 22" aria-hidden="true">
        <path d="M2 2h22v6c0 5-6 6-11 12C8 14 2 13 2 8z" fill="none" stroke={inks.plateInk} strokeWidth="1.8" />
        <path d="M4 8c3-2 6 1.500 9 0s6-1.500 9 0c0 4-5 5-9 9-4-4-9-5-9-9z" fill="#e08a1e" />
      </svg>
      <span style={{ fontWeight: 700, fontSize: 14 * size, letterSpacing: '0.14em' }}>CORE KEEL</span>
      <span style={rivet} />
    </Box>
  )
}
