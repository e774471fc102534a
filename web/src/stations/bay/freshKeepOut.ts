import * as declared from '../../api/declared'
import type { Bay, KeepOut } from '../../api/model'
import { freshName } from '../../work/naming'

/** A keep-out as it is begun with, sized by the bay. */
export function freshKeepOut(kind: 'box' | 'cylinder' | 'slope', bay: Bay): KeepOut {
  const third = (mm: number) => Math.max(1, Math.round(mm / 40) * 10)
  if (kind === 'box')
    return {
      ...declared.KeepOut.defaults,
      ...freshName('keep-out', bay.keep_outs),
      kind,
      x_mm: 0,
      y_mm: 0,
      z_mm: 0,
      length_mm: third(bay.length_mm),
      width_mm: third(bay.width_mm),
      height_mm: third(bay.height_mm),
    }
  if (kind === 'cylinder')
    return {
      ...declared.RoundKeepOut.defaults,
      ...freshName('round keep-out', bay.keep_outs),
      kind,
      x_mm: 0,
      y_mm: Math.round(bay.width_mm / 2),
      z_mm: third(bay.height_mm),
      diameter_mm: third(bay.height_mm),
      run_mm: bay.length_mm,
    }
  return {
    ...declared.SlopeKeepOut.defaults,
    ...freshName('slope', bay.keep_outs),
    kind,
    start_mm: bay.height_mm,
    end_mm: Math.round(bay.height_mm * 0.7),
  }
}
