import { Button, ListSubheader, Menu, MenuItem } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import * as declared from '../../api/declared'
import type { LineComponent } from '../../api/model'
import { useWork } from '../../work/store'
import { workshopQuery } from '../../workshop/query'
import { addPart } from './edits'
import { KIND_ORDER } from './names'

/** One more part, from the shop's library. */
export function AddPart({ readOnly }: { readOnly: boolean }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const known = useQuery(workshopQuery).data?.settings.line_parts ?? []
  const full = useWork((work) => work.design.lines.parts.length >= declared.Lines.most.parts)
  const pick = (component: LineComponent) => {
    setAnchor(null)
    addPart(component)
  }
  return (
    <>
      <Button variant="outlined" disabled={readOnly || full} onClick={(event) => setAnchor(event.currentTarget)}>
        Add a part
      </Button>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)}>
        {KIND_ORDER.flatMap((kind) => {
          const alike = known.filter((one) => one.does.kind === kind)
          if (!alike.length) return []
          return [
            <ListSubheader key={kind}>{kind}</ListSubheader>,
            ...alike.map((one) => (
              <MenuItem key={one.name} sx={{ minHeight: 44 }} onClick={() => pick(one)}>
                {one.name}
              </MenuItem>
            )),
          ]
        })}
        {!known.length && <MenuItem disabled>The library has no line parts yet: add them at Workshop.</MenuItem>}
      </Menu>
    </>
  )
}
