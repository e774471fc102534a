import { bay } from './bay/station'
import { bench } from './bench/station'
import { build } from './build/station'
import { buying } from './buying/station'
import { brief } from './brief/station'
import { gauge } from './gauge/station'
import { handover } from './handover/station'
import { inside } from './inside/station'
import { lines } from './lines/station'
import { mount } from './mount/station'
import { ports } from './ports/station'
import { proof } from './proof/station'
import { sheet } from './sheet/station'
import { shell } from './shell/station'
import { slosh } from './slosh/station'
import type { Station } from './station'
import { wiring } from './wiring/station'

const all: Station[] = [
  brief,
  bay,
  shell,
  inside,
  ports,
  gauge,
  slosh,
  sheet,
  build,
  proof,
  bench,
  mount,
  lines,
  wiring,
  buying,
  handover,
]

/** Every station, in the order of the work. The rail, the page and the findings walk this list. */
export const stations = (): readonly Station[] => all

export const stationOf = (name: string): Station | undefined => all.find((station) => station.name === name)

/** The station so many places further along; the same at either end. */
export function stationBeside(name: string, by: number): Station | undefined {
  const at = all.findIndex((station) => station.name === name)
  return all[Math.min(all.length - 1, Math.max(0, at + by))]
}

/** One station more; what comes back takes it out again. */
export function register(station: Station): () => void {
  all.push(station)
  return () => void all.splice(all.indexOf(station), 1)
}
