import { Typography } from '@mui/material'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Sheet } from '../Board'

/** Each space between plates, and how open each plate is. */
export function InsideFigures() {
  const insides = useWork((work) => work.evaluation?.inside?.checks)
  const bracing = useWork((work) => work.evaluation?.inside?.bracing)
  const units = useUnits()
  if (!insides) return null
  return (
    <>
      <Sheet
        label="Spaces between plates"
        columns={[
          { name: 'Space' },
          { name: 'holds', right: true },
          { name: 'long', right: true },
          { name: 'wide', right: true },
        ]}
        rows={insides.rooms.map((room) => ({
          key: room.name,
          strong: insides.rooms.length > 1 && room.name === insides.longest.room,
          cells: [
            room.name,
            units.volumeUnitText(room.litres, 1),
            units.lengthUnitText(room.along_mm),
            units.lengthUnitText(room.across_mm),
          ],
        }))}
      />
      <Typography variant="body2" data-free-run>
        The longest free run is {units.lengthUnitText(insides.longest.mm)},{' '}
        {insides.longest.axis === 'x' ? 'lengthwise' : 'across'}.
      </Typography>
      {bracing && bracing.length > 0 && (
        <>
          <Sheet
            label="Panels braced by the plates"
            columns={[
              { name: 'Plate' },
              { name: 'braces' },
              { name: `bears, ${units.unit('kpa')}`, right: true },
              { name: 'without it', right: true },
            ]}
            rows={bracing.map((braced) => ({
              key: braced.id,
              cells: braced.helps
                ? [
                    braced.name,
                    braced.panel,
                    units.amount('kpa', braced.with_kpa),
                    units.amount('kpa', braced.without_kpa),
                  ]
                : [braced.name, 'no panel', '', ''],
            }))}
          />
          <Typography variant="body2" color="textSecondary">
            The pressure a panel bears with the other plates standing, at the house rule’s share of the yield beside a
            weld.
          </Typography>
        </>
      )}
      {insides.plates.length > 0 && (
        <Sheet
          label="Baffle open area"
          columns={[{ name: 'Plate' }, { name: 'open', right: true }]}
          rows={insides.plates.map((plate) => ({
            key: plate.id,
            cells: [plate.name, `${units.number(plate.share * 100, 1)} %`],
          }))}
        />
      )}
    </>
  )
}
