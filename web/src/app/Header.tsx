import { Box, Button, Divider, FormControlLabel, Menu, MenuItem, Radio, RadioGroup, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import * as declared from '../api/declared'
import type { Session, Units } from '../api/model'
import { labelled } from '../fields/choices'
import { PasswordDialog } from './PasswordDialog'
import { Plate } from './Plate'
import { usePreferences, useSignOut } from './session'

const UNITS = labelled(declared.Preferences.choices.units, {
  mm_l: 'Millimetres, litres',
  in_usgal: 'Inches, US gallons',
  in_impgal: 'Inches, imperial gallons',
})
const SHORT: Record<Units, string> = { mm_l: 'mm · L', in_usgal: 'in · US gal', in_impgal: 'in · imp gal' }
const THEMES = labelled(declared.Preferences.choices.theme, { system: 'As the device', light: 'Light', dark: 'Dark' })

/** The strip along the top. A page puts its own things into it through `#header-slot`. */
export function Header({ session }: { session: Session }) {
  const { inks } = useTheme()
  const link = { color: inks.plateInk, minWidth: 0, px: 1.5 }
  return (
    <Box
      component="header"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1,
        px: 1.5,
        height: 52,
        flexShrink: 0,
        background: inks.plate,
        color: inks.plateInk,
      }}
    >
      <Link to="/" aria-label="Core Keel: to the jobs" style={{ textDecoration: 'none' }}>
        <Plate />
      </Link>
      <Button component={Link} to="/" sx={link}>
        Jobs
      </Button>
      <Button component={Link} to="/workshop" sx={link}>
        Workshop
      </Button>
      <Box id="header-slot" sx={{ flex: 1, minWidth: 0, display: 'flex', alignItems: 'center' }} />
      <UnitsMenu session={session} sx={link} />
      <PersonMenu session={session} sx={link} />
    </Box>
  )
}

function UnitsMenu({ session, sx }: { session: Session; sx: object }) {
  const [open, setOpen] = useState(false)
  const anchor = useRef<HTMLButtonElement>(null)
  const keep = usePreferences()
  return (
    <>
      <Button
        ref={anchor}
        sx={{ ...sx, whiteSpace: 'nowrap' }}
        onClick={() => setOpen(true)}
        aria-haspopup="menu"
        aria-label={`Units: ${SHORT[session.units]}`}
      >
        {SHORT[session.units]}
      </Button>
      <Menu anchorEl={() => anchor.current} open={open} onClose={() => setOpen(false)}>
        {UNITS.map(({ value, label }) => (
          <MenuItem
            key={value}
            selected={value === session.units}
            sx={{ minHeight: 44 }}
            onClick={() => {
              keep.mutate({ units: value })
              setOpen(false)
            }}
          >
            {label}
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}

function PersonMenu({ session, sx }: { session: Session; sx: object }) {
  const [open, setOpen] = useState(false)
  const [password, setPassword] = useState(false)
  const anchor = useRef<HTMLButtonElement>(null)
  const keep = usePreferences()
  const signOut = useSignOut()
  const navigate = useNavigate()
  return (
    <>
      <Button ref={anchor} sx={{ ...sx, whiteSpace: 'nowrap' }} onClick={() => setOpen(true)} aria-haspopup="menu">
        {session.name}
      </Button>
      <Menu anchorEl={() => anchor.current} open={open} onClose={() => setOpen(false)}>
        <Box component="li" sx={{ px: 2, py: 1 }}>
          <Typography variant="h3">{session.workshop}</Typography>
          <Typography variant="body2" color="textSecondary">
            {session.name}, {session.role}
          </Typography>
        </Box>
        <Divider component="li" />
        <Box component="li" sx={{ px: 2 }}>
          <RadioGroup
            aria-label="Light or dark"
            value={session.theme}
            onChange={(_, value) => keep.mutate({ theme: value as Session['theme'] })}
          >
            {THEMES.map(({ value, label }) => (
              <FormControlLabel key={value} value={value} label={label} control={<Radio />} sx={{ minHeight: 44 }} />
            ))}
          </RadioGroup>
        </Box>
        <Divider component="li" />
        <MenuItem
          sx={{ minHeight: 44 }}
          onClick={() => {
            setOpen(false)
            setPassword(true)
          }}
        >
          Change password
        </MenuItem>
        <MenuItem
          sx={{ minHeight: 44 }}
          onClick={() => {
            setOpen(false)
            signOut.mutate(undefined, { onSuccess: () => void navigate('/') })
          }}
        >
          Sign out
        </MenuItem>
      </Menu>
      <PasswordDialog open={password} onClose={() => setPassword(false)} />
    </>
  )
}
