import { useEffect } from 'react'
import type { Build } from '../../api/model'
import { pourOf } from '../../floor/build'
import { setFill, useWork } from '../../work/store'

/** While a step of the fill is at hand the drawing shows the level that it should stand at. */
export function useStepFill(build: Build | undefined, step: string | undefined) {
  const brimful = useWork((work) => work.evaluation?.shell?.capacity?.brimful_l)
  const fill = build?.fills.find((one) => pourOf(one) === step)
  const alone = build && fill && build.fills.every((one) => one.cell === fill.cell)
  const share = alone && brimful ? Math.min(1, fill.litres / brimful) : null
  useEffect(() => {
    setFill(share)
    return () => setFill(null)
  }, [share])
}
