import { FlatDrawing } from '../../drawing/FlatDrawing'
import { useWork } from '../../work/store'

/** The flat parts, instead of the tank. */
export function FlatBoard() {
  const parts = useWork((work) => work.evaluation?.sheet?.unfolded?.parts)
  return parts ? <FlatDrawing parts={parts} /> : null
}
