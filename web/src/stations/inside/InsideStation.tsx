import { Typography } from '@mui/material'
import type { ReactNode } from 'react'
import * as declared from '../../api/declared'
import { MaybeChoice } from '../../fields/fields'
import { change, useWork } from '../../work/store'
import { Folded } from '../Folded'
import { FeaturesPanel } from '../shell/FeaturesPanel'
import { BladderFields, FoamFields } from './FillingFields'
import { InsideFigures } from './InsideFigures'

/** What stands and lies in the tank: baffles, pots, foam, a bladder; and what that leaves of the fuel's way. */
export function InsideStation({ findings }: { findings: ReactNode }) {
  const { shell, inside } = useWork((work) => work.design)
  const readOnly = useWork((work) => work.readOnly)
  if (!shell) {
    return (
      <Typography variant="body2">There is no tank to put anything in yet: give it a shape at Shell first.</Typography>
    )
  }
  return (
    <>
      <FeaturesPanel
        shell={shell}
        kinds={STANDING}
        empty="A baffle slows the fuel and braces the panels it meets; a pot keeps fuel round the pickup. Drag them on the drawing; a baffle at hand shows its openings there."
        readOnly={readOnly}
      />
      {findings}
      <Folded title={inside.foam ? 'Foam' : 'Foam: none'} open={inside.foam !== null}>
        <FoamFields readOnly={readOnly} />
      </Folded>
      <Folded title={inside.bladder ? 'Bladder' : 'Bladder: none'} open={inside.bladder !== null}>
        <BladderFields readOnly={readOnly} />
      </Folded>
      <MaybeChoice
        label="Lining"
        value={inside.lining}
        options={declared.Inside.choices.lining}
        none="nothing"
        disabled={readOnly}
        onChange={(lining) => change((design) => ({ ...design, inside: { ...design.inside, lining } }))}
      />
      <Folded title="How far fuel runs" open>
        <InsideFigures />
      </Folded>
      <Typography variant="body2" color="textSecondary">
        Slosh drives the tank round a lap with this in it, and prices other baffle layouts against it.
      </Typography>
    </>
  )
}

const STANDING = ['baffle', 'pot'] as const
