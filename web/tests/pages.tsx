import { markup } from './markup'
import type { Design, Evaluation, Units } from '../src/api/model'
import { stations } from '../src/stations/registry'
import { AtStation } from '../src/work/AtStation'
import { Findings } from '../src/work/Findings'
import { open, useWork } from '../src/work/store'
import { Tally } from '../src/work/Tally'

/** Every station's page of a design, panel and board, with what is found there; and the tally. */
export async function pages(design: Design, evaluation: Evaluation, units: Units): Promise<Record<string, string>> {
  open(design, false)
  useWork.setState({ evaluation, evaluated: design })
  // A page rendered for the first time is shown the store as it began.
  Object.assign(useWork.getInitialState(), useWork.getState())
  const shown: Record<string, string> = { tally: await markup(<Tally onFindings={() => undefined} />, units) }
  for (const station of stations()) {
    for (const turned of [true, false]) {
      const page = (
        <AtStation
          station={station}
          designId={1}
          turned={turned}
          onTurn={() => undefined}
          findings={<Findings designId={1} station={station.name} everywhere />}
        />
      )
      shown[`${station.name}, ${turned ? 'board' : 'panel'}`] = await markup(page, units)
    }
  }
  return shown
}
