import { Block, Sheet } from '../Board'
import type { Shown } from './LinesBoard'

/** Old to new: everything on the old tank and where it goes. */
export function OldTable({ lines }: { lines: Shown }) {
  const things = lines.old?.things ?? []
  if (!things.length) return null
  const open = lines.old?.open ?? 0
  return (
    <Block
      title={`Old to new: ${things.length}, ${open ? `${open} open` : 'none open'}`}
      about="Every line, wire, vapour part and port of the old tank: keep, move, cap, remove."
    >
      <Sheet
        label="Old to new"
        width={1000}
        columns={[
          { name: 'Old' },
          { name: 'Kind' },
          { name: 'Did', wide: true },
          { name: 'Fate' },
          { name: 'Joined now at, or closed by', wide: true },
        ]}
        rows={things.map((one) => ({
          key: one.id,
          strong: Boolean(one.fault),
          cells: [one.name, one.kind, one.did || '–', one.fate, one.goes_to || (one.fault ? 'open' : '–')],
        }))}
      />
    </Block>
  )
}
