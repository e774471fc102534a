import { useWork } from '../../work/store'
import { BendStrip } from './BendStrip'
import { PressureStrip } from './PressureStrip'

/** Under the drawing: the tube at hand as it is bent, else pressure along the path. */
export function LinesFoot() {
  const at = useWork((work) => work.at)
  const tubes = useWork((work) => work.evaluation?.lines?.tubes)
  const tube = at?.kind === 'run' ? tubes?.find((one) => one.id === at.id) : undefined
  return tube ? <BendStrip tube={tube} /> : <PressureStrip />
}
