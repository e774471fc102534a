import { bay } from './bay/station'
import { bench } from './bench/station'
import { brief } from './brief/station'
import { gauge } from './gauge/station'
import { inside } from './inside/station'
import { ports } from './ports/station'
import { sheet } from './sheet/station'
import { shell } from './shell/station'
import { slosh } from './slosh/station'
import type { Station } from './station'

/** Every station, in the order of the work. The rail, the page and the findings walk this list. */
export const STATIONS: readonly Station[] = [brief, bay, shell, inside, ports, slosh, gauge, bench, sheet]

export const stationOf = (name: string): Station | undefined => STATIONS.find((station) => station.name === name)
