import { Box } from '@mui/material'
import type { Schemas } from '../../api/client'
import * as declared from '../../api/declared'
import { changeFeature } from '../../drawing/edits'
import { LengthField, Toggle } from '../../fields/fields'

type Plate = Schemas['Baffle'] | Schemas['Partition']

/** Tabs through slots in the shell, in place of flanges: how wide, how far apart. */
export function PlateTabs({ plate, place, readOnly }: { plate: Plate; place: number; readOnly: boolean }) {
  const { tabs } = plate
  const set = (part: Partial<Schemas['Tabs']>) =>
    changeFeature(plate.id, { tabs: { ...declared.Tabs.defaults, ...tabs, ...part } })
  return (
    <>
      <Toggle
        label="Tabs through slots in the shell"
        checked={Boolean(tabs)}
        disabled={readOnly}
        onChange={(on) => (on ? set({}) : changeFeature(plate.id, { tabs: null }))}
      />
      {tabs && (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
          <LengthField
            label="Tab, along the edge"
            value={tabs.wide_mm}
            path={`shell.features.${place}.tabs.wide_mm`}
            disabled={readOnly}
            onCommit={(wide_mm) => wide_mm !== null && set({ wide_mm })}
          />
          <LengthField
            label="Middle to middle"
            value={tabs.pitch_mm}
            path={`shell.features.${place}.tabs.pitch_mm`}
            disabled={readOnly}
            onCommit={(pitch_mm) => pitch_mm !== null && set({ pitch_mm })}
          />
        </Box>
      )}
    </>
  )
}
