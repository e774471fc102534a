import { Button, Menu, MenuItem } from '@mui/material'
import { useState } from 'react'
import * as declared from '../../api/declared'
import { useWork } from '../../work/store'
import { addDevice } from './edits'
import { KIND_ORDER } from './names'

/** One more device, by its kind. */
export function AddDevice({ readOnly }: { readOnly: boolean }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const full = useWork((work) => work.design.wiring.devices.length >= declared.Wiring.most.devices)
  return (
    <>
      <Button variant="outlined" disabled={readOnly || full} onClick={(event) => setAnchor(event.currentTarget)}>
        Add a device
      </Button>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)}>
        {KIND_ORDER.map((kind) => (
          <MenuItem
            key={kind}
            data-kind={kind}
            sx={{ minHeight: 44 }}
            onClick={() => {
              setAnchor(null)
              addDevice(kind)
            }}
          >
            {kind}
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}
