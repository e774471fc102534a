import { createTheme, type Theme } from '@mui/material/styles'

/** Fuel is always the one warm colour, metal the one cool one, the part at hand marking-out violet. */
export interface Inks {
  paper: string
  sheet: string
  line: string
  quiet: string
  ink: string
  metal: string
  metalFill: string
  fuel: string
  fuelFill: string
  fuelText: string
  hand: string
  handFill: string
  block: string
  blockFill: string
  stop: string
  caution: string
  note: string
  good: string
  plate: string
  plateInk: string
}

const LIGHT: Inks = {
  paper: '#eceae4',
  sheet: '#faf9f6',
  line: '#c9c6bc',
  quiet: '#5b6266',
  ink: '#1b2429',
  metal: '#35586a',
  metalFill: '#d6e2e7',
  fuel: '#d17a14',
  fuelFill: '#f2bf7c',
  fuelText: '#8a4c05',
  hand: '#4f3aa8',
  handFill: '#e4dff7',
  block: '#6b6259',
  blockFill: '#d9d3c9',
  stop: '#a3201c',
  caution: '#7d5200',
  note: '#33566b',
  good: '#2c6344',
  plate: '#22343c',
  plateInk: '#e9eff1',
}

const DARK: Inks = {
  paper: '#12181b',
  sheet: '#1a2226',
  line: '#3a464c',
  quiet: '#a3b0b6',
  ink: '#e8edef',
  metal: '#9fc3d3',
  metalFill: '#2a3d46',
  fuel: '#f0a044',
  fuelFill: '#7a4a12',
  fuelText: '#f5b566',
  hand: '#b9abff',
  handFill: '#332a5c',
  block: '#b3a898',
  blockFill: '#3b372f',
  stop: '#ff9a92',
  caution: '#f2c14e',
  note: '#93c4dd',
  good: '#84cfa2',
  plate: '#0b1013',
  plateInk: '#d8e2e6',
}

declare module '@mui/material/styles' {
  interface Theme {
    inks: Inks
  }
  interface ThemeOptions {
    inks?: Inks
  }
}

export function makeTheme(mode: 'light' | 'dark'): Theme {
  const inks = mode === 'dark' ? DARK : LIGHT
  return createTheme({
    inks,
    palette: {
      mode,
      primary: { main: inks.hand, contrastText: mode === 'dark' ? '#17123a' : '#ffffff' },
      secondary: { main: inks.metal },
      error: { main: inks.stop },
      warning: { main: inks.caution },
      info: { main: inks.note },
      success: { main: inks.good },
      background: { default: inks.paper, paper: inks.sheet },
      text: { primary: inks.ink, secondary: inks.quiet },
      divider: inks.line,
    },
    shape: { borderRadius: 3 },
    typography: {
      fontFamily: '"Archivo Variable", system-ui, sans-serif',
      fontSize: 14,
      button: { textTransform: 'none', fontWeight: 600 },
      h1: { fontSize: '1.35rem', fontWeight: 650, fontStretch: '88%' },
      h2: { fontSize: '1.05rem', fontWeight: 650, fontStretch: '92%' },
      h3: { fontSize: '0.92rem', fontWeight: 650 },
    },
    components: {
      MuiCssBaseline: {
        styleOverrides: {
          body: { fontVariantNumeric: 'tabular-nums' },
          ':focus-visible': { outline: `3px solid ${inks.hand}`, outlineOffset: 2 },
        },
      },
      MuiButtonBase: { defaultProps: { disableRipple: true } },
      MuiButton: { defaultProps: { disableElevation: true }, styleOverrides: { root: { minHeight: 44 } } },
      MuiIconButton: { styleOverrides: { root: { minWidth: 44, minHeight: 44, borderRadius: 3 } } },
      MuiTextField: { defaultProps: { size: 'small', fullWidth: true } },
      MuiOutlinedInput: { styleOverrides: { root: { minHeight: 44, backgroundColor: inks.sheet } } },
      MuiTableCell: { styleOverrides: { root: { padding: '8px 12px', borderColor: inks.line } } },
      MuiToggleButton: { styleOverrides: { root: { minHeight: 44, textTransform: 'none' } } },
      MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
    },
  })
}
