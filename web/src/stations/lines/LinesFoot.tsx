import { useWork } from '../../work/store'
import { BendStrip } from './BendStrip'
import { HoseStrip } from './HoseStrip'
import { PressureStrip } from './PressureStrip'

/** Under the drawing: the run at hand as it is made, else pressure along the path. */
export function LinesFoot() {
  const at = useWork((work) => work.at)
  const lines = useWork((work) => work.evaluation?.lines)
  const run = at?.kind === 'run' ? at.id : null
  const tube = lines?.tubes?.find((one) => one.id === run)
  const hose = lines?.hoses?.cut.find((one) => one.id === run)
  if (tube) return <BendStrip tube={tube} />
  if (hose && lines) return <HoseStrip hose={hose} lines={lines} />
  return <PressureStrip />
}
