import type { Theme } from '@mui/material/styles'

const SHADES = 5

/** How dark a pressure is drawn: the higher the darker, in so many steps between none and the most there is. */
export function shadeOf(kpa: number | null | undefined, most: number, theme: Theme): string {
  const { inks } = theme
  if (kpa === null || kpa === undefined) return inks.quiet
  const share = most > 0 ? Math.min(1, Math.max(0, kpa / most)) : 0
  const step = Math.round(share * (SHADES - 1)) / (SHADES - 1)
  const [low, high] = theme.palette.mode === 'dark' ? ['#7a5a2c', '#ffc36b'] : ['#e0a458', '#6b3303']
  return mixed(low, high, step)
}

function mixed(low: string, high: string, share: number): string {
  const part = (hex: string, place: number) => parseInt(hex.slice(1 + 2 * place, 3 + 2 * place), 16)
  const one = (place: number) => Math.round(part(low, place) + share * (part(high, place) - part(low, place)))
  return `rgb(${one(0)} ${one(1)} ${one(2)})`
}
