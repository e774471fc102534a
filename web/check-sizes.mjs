// How much script a page costs over the wire, by what was built: node check-sizes.mjs <folder of the build>
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'

const JOBS_KB = 220
const STATION_KB = 60

const folder = process.argv[2]
const manifest = JSON.parse(readFileSync(join(folder, '.vite/manifest.json'), 'utf8'))

/** A chunk and all that it can't do without. */
function needed(key, found = new Set()) {
  if (found.has(key)) return found
  found.add(key)
  for (const other of manifest[key].imports ?? []) needed(other, found)
  return found
}

const kilobytes = (keys) =>
  [...keys].reduce((sum, key) => sum + gzipSync(readFileSync(join(folder, manifest[key].file))).length / 1000, 0)

const entry = needed(Object.keys(manifest).find((key) => manifest[key].isEntry))
const page = needed('src/work/WorkPage.tsx', new Set(entry))
const stations = Object.keys(manifest).filter((key) => /^src\/stations\/\w+\/\w+(Station|Board)\.tsx$/.test(key))
const costs = [
  ['jobs page', kilobytes(entry), JOBS_KB],
  ...stations.map((key) => [
    key.split('/').pop(),
    kilobytes(needed(key).difference?.(page) ?? [...needed(key)].filter((other) => !page.has(other))),
    STATION_KB,
  ]),
]
for (const [name, cost, most] of costs) console.log(`${name.padEnd(24)} ${cost.toFixed(1).padStart(6)} kB of ${most}`)
const over = costs.filter(([, cost, most]) => cost > most)
if (stations.length === 0 || over.length > 0) {
  console.error(over.map(([name]) => `${name} is too large`).join('; ') || 'no station is built as a chunk of its own')
  process.exit(1)
}
