import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { type ReactNode, useLayoutEffect, useRef, useState } from 'react'

export const STRIP_HEIGHT = 200

/** The room under the drawing: what is drawn in it knows how wide it is. */
export function StripFrame({ label, children }: { label: string; children: (width: number) => ReactNode }) {
  const { inks } = useTheme()
  const box = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(0)
  useLayoutEffect(() => {
    const element = box.current
    if (!element) return
    const watch = new ResizeObserver(([entry]) => entry && setWidth(entry.contentRect.width))
    watch.observe(element)
    return () => watch.disconnect()
  }, [])
  return (
    <Box
      ref={box}
      component="section"
      aria-label={label}
      sx={{
        height: STRIP_HEIGHT,
        flexShrink: 0,
        borderTop: `1px solid ${inks.line}`,
        background: inks.sheet,
        overflow: 'hidden',
      }}
    >
      {width > 0 && children(width)}
    </Box>
  )
}
