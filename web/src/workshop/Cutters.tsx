import { TextField } from '@mui/material'
import * as declared from '../api/declared'
import type { Fault, Schemas } from '../api/client'
import { Choice, LengthField, Toggle } from '../fields/fields'
import { Listed } from './Listed'

type Cutter = Schemas['Cutter']

interface Props {
  cutters: Cutter[]
  disabled: boolean
  fault: (path: string) => Fault | undefined
  onChange: (cutters: Cutter[]) => void
}

/** What the shop cuts sheet with, large machine or small: each part is told what cuts it, or is better sent out. */
export function Cutters({ cutters, disabled, fault, onChange }: Props) {
  return (
    <Listed
      items={cutters}
      disabled={disabled}
      add="Add a means of cutting"
      fresh={() => ({ ...declared.Cutter.defaults, name: `Cutter ${cutters.length + 1}` })}
      onChange={onChange}
    >
      {(cutter, place, set) => (
        <>
          <TextField
            label="Name"
            value={cutter.name}
            disabled={disabled}
            onChange={(event) => set({ name: event.target.value.slice(0, declared.Cutter.most.name) })}
          />
          <Choice
            label="Cuts"
            value={cutter.cuts ?? declared.Cutter.defaults.cuts}
            options={declared.Cutter.choices.cuts}
            disabled={disabled}
            onChange={(cuts) => set({ cuts })}
          />
          <LengthField
            label="Thickest mild steel"
            value={cutter.thickest_steel_mm ?? null}
            disabled={disabled}
            fault={fault(`cutters.${place}.thickest_steel_mm`)}
            onCommit={(value) => value !== null && set({ thickest_steel_mm: value })}
          />
          {cutter.cuts === 'round holes' ? (
            <>
              <LengthField
                label="Smallest hole"
                value={cutter.from_mm ?? null}
                disabled={disabled}
                fault={fault(`cutters.${place}.from_mm`)}
                onCommit={(value) => set({ from_mm: value ?? 0 })}
              />
              <LengthField
                label="Largest hole"
                value={cutter.to_mm ?? null}
                emptyText="any"
                disabled={disabled}
                fault={fault(`cutters.${place}.to_mm`)}
                onCommit={(to_mm) => set({ to_mm })}
              />
            </>
          ) : (
            <>
              <LengthField
                label="Longest cut"
                value={cutter.longest_mm ?? null}
                emptyText="any"
                disabled={disabled}
                fault={fault(`cutters.${place}.longest_mm`)}
                onCommit={(longest_mm) => set({ longest_mm })}
              />
              {cutter.cuts !== 'straight edges' && (
                <LengthField
                  label="Tightest curve"
                  value={cutter.curve_mm ?? null}
                  disabled={disabled}
                  fault={fault(`cutters.${place}.curve_mm`)}
                  onCommit={(value) => set({ curve_mm: value ?? 0 })}
                />
              )}
            </>
          )}
          <TextField
            label="Edge it leaves"
            value={cutter.edge ?? ''}
            disabled={disabled}
            onChange={(event) => set({ edge: event.target.value.slice(0, declared.Cutter.most.edge) })}
          />
          <Toggle label="Loud" checked={cutter.loud ?? false} disabled={disabled} onChange={(loud) => set({ loud })} />
        </>
      )}
    </Listed>
  )
}
